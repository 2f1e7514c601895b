ALTER TABLE `numbering` MODIFY COLUMN `prefix` varchar(8) NOT NULL;--> statement-breakpoint
ALTER TABLE `saved_view` MODIFY COLUMN `kind` varchar(16) NOT NULL DEFAULT 'orders';--> statement-breakpoint
ALTER TABLE `numbering` ADD `digits` smallint DEFAULT 5 NOT NULL;