CREATE TABLE `document_file` (
	`id` int AUTO_INCREMENT NOT NULL,
	`document_id` int NOT NULL,
	`number` int NOT NULL,
	`name` varchar(160) NOT NULL,
	`mime` varchar(60) NOT NULL,
	`shows` varchar(8) NOT NULL,
	`bytes` int NOT NULL,
	`stored_id` int NOT NULL,
	`thumb` mediumblob,
	`by_name` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `document_file_id` PRIMARY KEY(`id`),
	CONSTRAINT `document_file_number` UNIQUE(`document_id`,`number`)
);
--> statement-breakpoint
CREATE TABLE `document` (
	`id` int AUTO_INCREMENT NOT NULL,
	`kept_on` varchar(12) NOT NULL,
	`record_id` int NOT NULL,
	`kind` varchar(12) NOT NULL,
	`title` varchar(140) NOT NULL,
	`valid_from` date,
	`valid_until` date,
	`remind_days` smallint,
	`reminded_of` date,
	`audience` json NOT NULL,
	`words` mediumtext NOT NULL,
	`added_by` int NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`retired_at` datetime(3),
	CONSTRAINT `document_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `notice` ADD `leads_to` varchar(80);--> statement-breakpoint
ALTER TABLE `document_file` ADD CONSTRAINT `document_file_document_id_document_id_fk` FOREIGN KEY (`document_id`) REFERENCES `document`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `document_file` ADD CONSTRAINT `document_file_stored_id_stored_file_id_fk` FOREIGN KEY (`stored_id`) REFERENCES `stored_file`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `document` ADD CONSTRAINT `document_added_by_account_id_fk` FOREIGN KEY (`added_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `document_of` ON `document` (`kept_on`,`record_id`);--> statement-breakpoint
CREATE INDEX `document_end` ON `document` (`valid_until`,`id`);--> statement-breakpoint
ALTER TABLE `document` ADD FULLTEXT INDEX `document_words` (`words`);