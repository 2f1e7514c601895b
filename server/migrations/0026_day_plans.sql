CREATE TABLE `day_plan` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`created_by` int NOT NULL,
	`created_by_name` varchar(120) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`first` varchar(10) NOT NULL,
	`last` varchar(10) NOT NULL,
	`ask` json NOT NULL,
	`given` json NOT NULL,
	`state` varchar(12) NOT NULL,
	`try_at` datetime(3) NOT NULL,
	`attempts` int NOT NULL DEFAULT 0,
	`made` json,
	`bound` json,
	`bound_by` datetime(3),
	`taken` json NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `day_plan_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `day_plan` ADD CONSTRAINT `day_plan_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `day_plan` ADD CONSTRAINT `day_plan_created_by_account_id_fk` FOREIGN KEY (`created_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `day_plan_waiting` ON `day_plan` (`state`,`try_at`);--> statement-breakpoint
CREATE INDEX `day_plan_created` ON `day_plan` (`created_at`);