CREATE TABLE `device` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`ident` varchar(43) NOT NULL,
	`name` varchar(120) NOT NULL,
	`seal_key` varchar(64) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`heard_at` datetime(3) NOT NULL,
	`ended_at` datetime(3),
	CONSTRAINT `device_id` PRIMARY KEY(`id`),
	CONSTRAINT `device_once` UNIQUE(`account_id`,`ident`)
);
--> statement-breakpoint
CREATE TABLE `upload_piece` (
	`upload_id` varchar(43) NOT NULL,
	`position` int NOT NULL,
	`content` mediumblob NOT NULL,
	CONSTRAINT `upload_piece_upload_id_position_pk` PRIMARY KEY(`upload_id`,`position`)
);
--> statement-breakpoint
CREATE TABLE `upload` (
	`id` varchar(43) NOT NULL,
	`owner` varchar(80) NOT NULL,
	`bytes` int NOT NULL,
	`received` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `upload_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `session` ADD `device_id` int;--> statement-breakpoint
ALTER TABLE `device` ADD CONSTRAINT `device_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `upload_piece` ADD CONSTRAINT `upload_piece_upload_id_upload_id_fk` FOREIGN KEY (`upload_id`) REFERENCES `upload`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `device_ident` ON `device` (`ident`);--> statement-breakpoint
CREATE INDEX `upload_at` ON `upload` (`at`);--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_device_id_device_id_fk` FOREIGN KEY (`device_id`) REFERENCES `device`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `stint_technician` ON `stint` (`technician_id`,`start_at`);