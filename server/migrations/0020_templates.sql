CREATE TABLE `batch_order` (
	`batch_id` int NOT NULL,
	`order_id` int NOT NULL,
	CONSTRAINT `batch_order_batch_id_order_id_pk` PRIMARY KEY(`batch_id`,`order_id`)
);
--> statement-breakpoint
CREATE TABLE `order_batch` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`template_id` int NOT NULL,
	`lead_order_id` int,
	`at` datetime(3) NOT NULL,
	`by` int NOT NULL,
	`taken_back_at` datetime(3),
	CONSTRAINT `order_batch_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `order_template` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`summary` varchar(140) NOT NULL,
	`description` text NOT NULL,
	`priority` varchar(12) NOT NULL,
	`category_id` int,
	`trade_id` int,
	`team_id` int,
	`lead_id` int,
	`supervisor_id` int,
	`method_id` int,
	`payer_rule` varchar(8) NOT NULL,
	`payer_id` int,
	`estimate_minor` int,
	`due_days` smallint,
	`version` int NOT NULL DEFAULT 1,
	`retired_at` datetime(3),
	CONSTRAINT `order_template_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `batch_order` ADD CONSTRAINT `batch_order_batch_id_order_batch_id_fk` FOREIGN KEY (`batch_id`) REFERENCES `order_batch`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `batch_order` ADD CONSTRAINT `batch_order_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_batch` ADD CONSTRAINT `order_batch_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_batch` ADD CONSTRAINT `order_batch_template_id_order_template_id_fk` FOREIGN KEY (`template_id`) REFERENCES `order_template`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_batch` ADD CONSTRAINT `order_batch_lead_order_id_work_order_id_fk` FOREIGN KEY (`lead_order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_batch` ADD CONSTRAINT `order_batch_by_account_id_fk` FOREIGN KEY (`by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_template` ADD CONSTRAINT `order_template_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_template` ADD CONSTRAINT `order_template_category_id_category_id_fk` FOREIGN KEY (`category_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_template` ADD CONSTRAINT `order_template_trade_id_trade_id_fk` FOREIGN KEY (`trade_id`) REFERENCES `trade`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_template` ADD CONSTRAINT `order_template_team_id_team_id_fk` FOREIGN KEY (`team_id`) REFERENCES `team`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_template` ADD CONSTRAINT `order_template_lead_id_account_id_fk` FOREIGN KEY (`lead_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_template` ADD CONSTRAINT `order_template_supervisor_id_account_id_fk` FOREIGN KEY (`supervisor_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_template` ADD CONSTRAINT `order_template_method_id_method_id_fk` FOREIGN KEY (`method_id`) REFERENCES `method`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_template` ADD CONSTRAINT `order_template_payer_id_payer_id_fk` FOREIGN KEY (`payer_id`) REFERENCES `payer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `batch_order_order` ON `batch_order` (`order_id`);--> statement-breakpoint
CREATE INDEX `order_batch_site` ON `order_batch` (`site_id`,`id`);