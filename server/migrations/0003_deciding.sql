CREATE TABLE `default_view` (
	`account_id` int NOT NULL,
	`view_key` varchar(40) NOT NULL,
	CONSTRAINT `default_view_account_id` PRIMARY KEY(`account_id`)
);
--> statement-breakpoint
CREATE TABLE `saved_view` (
	`id` int AUTO_INCREMENT NOT NULL,
	`owner_id` int NOT NULL,
	`name` varchar(80) NOT NULL,
	`shared_with` varchar(8) NOT NULL,
	`team_id` int,
	`address` varchar(1500) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `saved_view_id` PRIMARY KEY(`id`),
	CONSTRAINT `saved_view_name` UNIQUE(`owner_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `rule_book` (
	`site_id` int NOT NULL,
	`content` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `rule_book_site_id` PRIMARY KEY(`site_id`)
);
--> statement-breakpoint
CREATE TABLE `target_exception` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`category_id` int NOT NULL,
	`priority` varchar(12) NOT NULL,
	`clock` varchar(12) NOT NULL,
	`response_minutes` int NOT NULL,
	`completion_minutes` int NOT NULL,
	CONSTRAINT `target_exception_id` PRIMARY KEY(`id`),
	CONSTRAINT `target_exception_once` UNIQUE(`site_id`,`category_id`,`priority`)
);
--> statement-breakpoint
ALTER TABLE `request` ADD `hazard_severity` varchar(12);--> statement-breakpoint
ALTER TABLE `request` ADD `hazard_likelihood` varchar(12);--> statement-breakpoint
ALTER TABLE `approval` ADD `position` smallint DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `approval` ADD `kind` varchar(8) DEFAULT 'limit' NOT NULL;--> statement-breakpoint
ALTER TABLE `approval` ADD `account_id` int;--> statement-breakpoint
ALTER TABLE `approval` ADD `payer_id` int;--> statement-breakpoint
ALTER TABLE `approval` ADD `why` varchar(400) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `work_order` ADD `hazard_severity` varchar(12);--> statement-breakpoint
ALTER TABLE `work_order` ADD `hazard_likelihood` varchar(12);--> statement-breakpoint
ALTER TABLE `work_order` ADD `told_standing` varchar(8) DEFAULT 'none' NOT NULL;--> statement-breakpoint
ALTER TABLE `payer` ADD `consent_above_minor` int;--> statement-breakpoint
ALTER TABLE `payer` ADD `consent_account_id` int;--> statement-breakpoint
ALTER TABLE `default_view` ADD CONSTRAINT `default_view_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saved_view` ADD CONSTRAINT `saved_view_owner_id_account_id_fk` FOREIGN KEY (`owner_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `saved_view` ADD CONSTRAINT `saved_view_team_id_team_id_fk` FOREIGN KEY (`team_id`) REFERENCES `team`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rule_book` ADD CONSTRAINT `rule_book_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `target_exception` ADD CONSTRAINT `target_exception_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `target_exception` ADD CONSTRAINT `target_exception_category_id_category_id_fk` FOREIGN KEY (`category_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `approval` ADD CONSTRAINT `approval_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `approval` ADD CONSTRAINT `approval_payer_id_payer_id_fk` FOREIGN KEY (`payer_id`) REFERENCES `payer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payer` ADD CONSTRAINT `payer_consent_account_id_account_id_fk` FOREIGN KEY (`consent_account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `order_told` ON `work_order` (`told_standing`,`close_at`);--> statement-breakpoint
CREATE INDEX `order_finished` ON `work_order` (`state`,`finished_at`,`id`);--> statement-breakpoint
CREATE INDEX `order_over` ON `work_order` (`state`,`closed_at`,`id`);--> statement-breakpoint
CREATE INDEX `order_archived` ON `work_order` (`archived`,`id`);--> statement-breakpoint
CREATE INDEX `order_team` ON `work_order` (`team_id`,`state`,`completion_due_at`,`id`);--> statement-breakpoint
CREATE INDEX `order_created` ON `work_order` (`created_at`,`id`);