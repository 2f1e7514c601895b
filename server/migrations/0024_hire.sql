ALTER TABLE `booking` ADD `per_day_minor` int;--> statement-breakpoint
ALTER TABLE `booking` ADD `hired_days` int;--> statement-breakpoint
ALTER TABLE `equipment` ADD `per_day_minor` int;