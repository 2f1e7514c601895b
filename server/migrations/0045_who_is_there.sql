ALTER TABLE `visit` ADD `there_name` varchar(80);--> statement-breakpoint
ALTER TABLE `visit` ADD `there_phone` varchar(40);