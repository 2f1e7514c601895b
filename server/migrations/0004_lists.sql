ALTER TABLE `asset` ADD `contact_id` int;--> statement-breakpoint
ALTER TABLE `account` ADD `team_id` int;--> statement-breakpoint
ALTER TABLE `saved_view` ADD `kind` varchar(8) DEFAULT 'orders' NOT NULL;--> statement-breakpoint
ALTER TABLE `work_order` ADD `vendor_id` int;--> statement-breakpoint
ALTER TABLE `asset` ADD CONSTRAINT `asset_contact_id_person_id_fk` FOREIGN KEY (`contact_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_team_id_team_id_fk` FOREIGN KEY (`team_id`) REFERENCES `team`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `request_numbered` ON `request` (`number`);--> statement-breakpoint
CREATE INDEX `request_reference` ON `request` (`outside_reference`);--> statement-breakpoint
CREATE INDEX `request_due` ON `request` (`state`,`triage_due_at`,`id`);--> statement-breakpoint
CREATE INDEX `request_decided` ON `request` (`state`,`decided_at`,`id`);--> statement-breakpoint
CREATE INDEX `request_newest` ON `request` (`received_at`,`id`);--> statement-breakpoint
CREATE INDEX `order_numbered` ON `work_order` (`number`);--> statement-breakpoint
CREATE INDEX `order_led` ON `work_order` (`lead_id`,`state`,`completion_due_at`,`id`);--> statement-breakpoint
CREATE INDEX `order_estimate` ON `work_order` (`estimate_minor`,`id`);--> statement-breakpoint
CREATE INDEX `order_reference` ON `work_order` (`outside_reference`);--> statement-breakpoint
ALTER TABLE `work_order` ADD FULLTEXT INDEX `order_words` (`summary`, `description`);--> statement-breakpoint
ALTER TABLE `request` ADD FULLTEXT INDEX `request_words` (`summary`, `description`);--> statement-breakpoint
ALTER TABLE `comment` ADD FULLTEXT INDEX `comment_words` (`text`);
