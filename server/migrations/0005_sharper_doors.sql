CREATE TABLE `stored_file` (
	`id` int AUTO_INCREMENT NOT NULL,
	`bytes` int NOT NULL,
	`checksum` varchar(64) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `stored_file_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `stored_piece` (
	`file_id` int NOT NULL,
	`position` int NOT NULL,
	`content` mediumblob NOT NULL,
	CONSTRAINT `stored_piece_file_id_position_pk` PRIMARY KEY(`file_id`,`position`)
);
--> statement-breakpoint
CREATE TABLE `untold_event` (
	`event_id` bigint NOT NULL,
	`attempts` smallint NOT NULL,
	`error` varchar(300) NOT NULL,
	`next_at` datetime(3) NOT NULL,
	`set_aside_at` datetime(3),
	CONSTRAINT `untold_event_event_id` PRIMARY KEY(`event_id`)
);
--> statement-breakpoint
CREATE TABLE `sign_in_try` (
	`id` int AUTO_INCREMENT NOT NULL,
	`pair_hash` varchar(64) NOT NULL,
	`tries` int NOT NULL,
	`next_at` datetime(3) NOT NULL,
	CONSTRAINT `sign_in_try_id` PRIMARY KEY(`id`),
	CONSTRAINT `sign_in_try_pair` UNIQUE(`pair_hash`)
);
--> statement-breakpoint
ALTER TABLE `attachment` MODIFY COLUMN `content` mediumblob;--> statement-breakpoint
ALTER TABLE `incoming_mail` MODIFY COLUMN `raw` mediumblob;--> statement-breakpoint
ALTER TABLE `attachment` ADD `stored_id` int;--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD `message_id` varchar(250);--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD `file_id` int;--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD `left_out` varchar(400);--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD `dismissed_by` int;--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD `dismissed_at` datetime(3);--> statement-breakpoint
ALTER TABLE `mail` ADD `follower_id` int;--> statement-breakpoint
ALTER TABLE `mail` ADD `written_at` datetime(3);--> statement-breakpoint
ALTER TABLE `site` ADD `locale` varchar(16) DEFAULT 'en-IE' NOT NULL;--> statement-breakpoint
ALTER TABLE `request_follower` ADD `confirmed_at` datetime(3);--> statement-breakpoint
ALTER TABLE `stored_piece` ADD CONSTRAINT `stored_piece_file_id_stored_file_id_fk` FOREIGN KEY (`file_id`) REFERENCES `stored_file`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `untold_event` ADD CONSTRAINT `untold_event_event_id_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `event`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `untold_event_next` ON `untold_event` (`set_aside_at`,`next_at`);--> statement-breakpoint
CREATE INDEX `sign_in_try_next` ON `sign_in_try` (`next_at`);--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_stored_id_stored_file_id_fk` FOREIGN KEY (`stored_id`) REFERENCES `stored_file`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD CONSTRAINT `incoming_mail_file_id_stored_file_id_fk` FOREIGN KEY (`file_id`) REFERENCES `stored_file`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD CONSTRAINT `incoming_mail_dismissed_by_account_id_fk` FOREIGN KEY (`dismissed_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mail` ADD CONSTRAINT `mail_follower_id_request_follower_id_fk` FOREIGN KEY (`follower_id`) REFERENCES `request_follower`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `incoming_mail_message` ON `incoming_mail` (`message_id`);--> statement-breakpoint
CREATE INDEX `incoming_mail_request` ON `incoming_mail` (`request_id`);--> statement-breakpoint
CREATE INDEX `mail_to` ON `mail` (`to`,`written_at`);--> statement-breakpoint
ALTER TABLE `site` DROP COLUMN `shared_messages`;--> statement-breakpoint
ALTER TABLE `account` DROP COLUMN `failed_logins`;--> statement-breakpoint
ALTER TABLE `account` DROP COLUMN `wait_until`;--> statement-breakpoint
UPDATE `request_follower` SET `confirmed_at` = `at`;--> statement-breakpoint
UPDATE `incoming_mail` SET `message_id` = `once_key` WHERE `once_key` LIKE '<%';
