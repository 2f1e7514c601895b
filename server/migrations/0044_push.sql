CREATE TABLE `push_subscription` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`device_id` int,
	`endpoint` varchar(700) NOT NULL,
	`endpoint_hash` varchar(64) NOT NULL,
	`p256dh` varchar(120) NOT NULL,
	`auth` varchar(40) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `push_subscription_id` PRIMARY KEY(`id`),
	CONSTRAINT `push_subscription_once` UNIQUE(`endpoint_hash`)
);
--> statement-breakpoint
CREATE TABLE `push` (
	`id` int AUTO_INCREMENT NOT NULL,
	`subscription_id` int NOT NULL,
	`sentence` varchar(300) NOT NULL,
	`leads_to` varchar(80) NOT NULL,
	`tries` int NOT NULL DEFAULT 0,
	`next_at` datetime(3) NOT NULL,
	CONSTRAINT `push_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `push_subscription` ADD CONSTRAINT `push_subscription_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `push_subscription` ADD CONSTRAINT `push_subscription_device_id_device_id_fk` FOREIGN KEY (`device_id`) REFERENCES `device`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `push` ADD CONSTRAINT `push_subscription_id_push_subscription_id_fk` FOREIGN KEY (`subscription_id`) REFERENCES `push_subscription`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `push_subscription_account` ON `push_subscription` (`account_id`);--> statement-breakpoint
CREATE INDEX `push_next` ON `push` (`next_at`);--> statement-breakpoint
CREATE INDEX `push_subscription` ON `push` (`subscription_id`);