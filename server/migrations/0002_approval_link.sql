CREATE TABLE `approval_link` (
	`id` int AUTO_INCREMENT NOT NULL,
	`approval_id` int NOT NULL,
	`account_id` int NOT NULL,
	`nonce` varchar(32) NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`used_at` datetime(3),
	CONSTRAINT `approval_link_id` PRIMARY KEY(`id`),
	CONSTRAINT `approval_link_token` UNIQUE(`token_hash`),
	CONSTRAINT `approval_link_once` UNIQUE(`approval_id`,`account_id`)
);
--> statement-breakpoint
ALTER TABLE `approval_link` ADD CONSTRAINT `approval_link_approval_id_approval_id_fk` FOREIGN KEY (`approval_id`) REFERENCES `approval`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `approval_link` ADD CONSTRAINT `approval_link_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;