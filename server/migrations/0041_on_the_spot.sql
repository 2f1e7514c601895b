CREATE TABLE `spot_report` (
	`mark` varchar(64) NOT NULL,
	`request_id` int NOT NULL,
	`account_id` int NOT NULL,
	CONSTRAINT `spot_report_mark` PRIMARY KEY(`mark`)
);
--> statement-breakpoint
ALTER TABLE `spot_report` ADD CONSTRAINT `spot_report_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `spot_report` ADD CONSTRAINT `spot_report_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `spot_report_request` ON `spot_report` (`request_id`);