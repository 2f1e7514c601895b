CREATE TABLE `shift_exception` (
	`id` int AUTO_INCREMENT NOT NULL,
	`technician_id` int NOT NULL,
	`day` date NOT NULL,
	`stretches` json NOT NULL,
	`reason` varchar(120),
	CONSTRAINT `shift_exception_id` PRIMARY KEY(`id`),
	CONSTRAINT `shift_exception_day` UNIQUE(`technician_id`,`day`)
);
--> statement-breakpoint
CREATE TABLE `technician_skill` (
	`id` int AUTO_INCREMENT NOT NULL,
	`technician_id` int NOT NULL,
	`name` varchar(80) NOT NULL,
	`certificate` varchar(60),
	`valid_until` date,
	CONSTRAINT `technician_skill_id` PRIMARY KEY(`id`),
	CONSTRAINT `technician_skill_once` UNIQUE(`technician_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `vendor_contact` (
	`id` int AUTO_INCREMENT NOT NULL,
	`vendor_id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`role` varchar(80),
	`email` varchar(190),
	`phone` varchar(40),
	CONSTRAINT `vendor_contact_id` PRIMARY KEY(`id`),
	CONSTRAINT `vendor_contact_once` UNIQUE(`vendor_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `vendor_site` (
	`vendor_id` int NOT NULL,
	`site_id` int NOT NULL,
	CONSTRAINT `vendor_site_vendor_id_site_id_pk` PRIMARY KEY(`vendor_id`,`site_id`)
);
--> statement-breakpoint
CREATE TABLE `own_field` (
	`id` int AUTO_INCREMENT NOT NULL,
	`kind` varchar(12) NOT NULL,
	`label` varchar(60) NOT NULL,
	`shape` varchar(8) NOT NULL,
	`unit` varchar(16),
	`choices` json NOT NULL,
	`position` smallint NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`retired_at` datetime(3),
	CONSTRAINT `own_field_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `own_value` (
	`field_id` int NOT NULL,
	`record_id` int NOT NULL,
	`text` varchar(400),
	`number` decimal(18,4),
	`day` date,
	CONSTRAINT `own_value_field_id_record_id_pk` PRIMARY KEY(`field_id`,`record_id`)
);
--> statement-breakpoint
CREATE TABLE `own_version` (
	`kind` varchar(12) NOT NULL,
	`record_id` int NOT NULL,
	`version` int NOT NULL,
	CONSTRAINT `own_version_kind_record_id_pk` PRIMARY KEY(`kind`,`record_id`)
);
--> statement-breakpoint
ALTER TABLE `numbering` MODIFY COLUMN `prefix` varchar(8) NOT NULL;--> statement-breakpoint
ALTER TABLE `saved_view` MODIFY COLUMN `kind` varchar(16) NOT NULL DEFAULT 'orders';--> statement-breakpoint
ALTER TABLE `numbering` ADD `digits` smallint DEFAULT 5 NOT NULL;--> statement-breakpoint
ALTER TABLE `leave` ADD `reason` varchar(120);--> statement-breakpoint
ALTER TABLE `technician` ADD `home_place_id` int;--> statement-breakpoint
ALTER TABLE `technician` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `shift_exception` ADD CONSTRAINT `shift_exception_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `technician_skill` ADD CONSTRAINT `technician_skill_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_contact` ADD CONSTRAINT `vendor_contact_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_site` ADD CONSTRAINT `vendor_site_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_site` ADD CONSTRAINT `vendor_site_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `own_value` ADD CONSTRAINT `own_value_field_id_own_field_id_fk` FOREIGN KEY (`field_id`) REFERENCES `own_field`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `technician_skill_end` ON `technician_skill` (`valid_until`);--> statement-breakpoint
CREATE INDEX `own_value_text` ON `own_value` (`field_id`,`text`,`record_id`);--> statement-breakpoint
CREATE INDEX `own_value_number` ON `own_value` (`field_id`,`number`,`record_id`);--> statement-breakpoint
CREATE INDEX `own_value_day` ON `own_value` (`field_id`,`day`,`record_id`);--> statement-breakpoint
ALTER TABLE `technician` ADD CONSTRAINT `technician_home_place_id_place_id_fk` FOREIGN KEY (`home_place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;