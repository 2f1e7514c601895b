CREATE TABLE `feed` (
	`id` int AUTO_INCREMENT NOT NULL,
	`register` varchar(12) NOT NULL,
	`record_id` int NOT NULL,
	`made_for` varchar(120) NOT NULL,
	`nonce` varchar(32) NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`made_by` int,
	`read_at` datetime(3),
	`revoked_at` datetime(3),
	CONSTRAINT `feed_id` PRIMARY KEY(`id`),
	CONSTRAINT `feed_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
ALTER TABLE `feed` ADD CONSTRAINT `feed_made_by_account_id_fk` FOREIGN KEY (`made_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `feed_record` ON `feed` (`register`,`record_id`);