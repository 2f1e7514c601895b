CREATE TABLE `transfer` (
	`id` int AUTO_INCREMENT NOT NULL,
	`asset_id` int NOT NULL,
	`kind` varchar(8) NOT NULL,
	`state` varchar(12) NOT NULL,
	`from_site_id` int NOT NULL,
	`from_place_id` int NOT NULL,
	`from_parent_id` int,
	`to_site_id` int NOT NULL,
	`to_place_id` int,
	`reason` text NOT NULL,
	`return_by` date,
	`asked_by` int NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`decided_by` int,
	`decided_at` datetime(3),
	`note` text,
	`returned_at` datetime(3),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `transfer_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
DROP INDEX `place_find` ON `place`;--> statement-breakpoint
ALTER TABLE `asset` MODIFY COLUMN `class_code` varchar(12);--> statement-breakpoint
ALTER TABLE `vendor` MODIFY COLUMN `service` varchar(120);--> statement-breakpoint
ALTER TABLE `vendor` MODIFY COLUMN `call_out_minor` int;--> statement-breakpoint
ALTER TABLE `vendor` MODIFY COLUMN `per_hour_minor` int;--> statement-breakpoint
ALTER TABLE `vendor` MODIFY COLUMN `markup_bp` int;--> statement-breakpoint
ALTER TABLE `event` ADD `register` varchar(12);--> statement-breakpoint
ALTER TABLE `event` ADD `record_id` int;--> statement-breakpoint
ALTER TABLE `asset` ADD `path` varchar(190) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `asset` ADD `life_years` int;--> statement-breakpoint
ALTER TABLE `asset` ADD `warranty_from` date;--> statement-breakpoint
ALTER TABLE `asset` ADD `warranty_covers` varchar(8);--> statement-breakpoint
ALTER TABLE `asset` ADD `warranty_terms` text;--> statement-breakpoint
ALTER TABLE `asset` ADD `condition` varchar(12);--> statement-breakpoint
ALTER TABLE `asset` ADD `criticality` varchar(12);--> statement-breakpoint
ALTER TABLE `asset` ADD `owner` varchar(8) DEFAULT 'us' NOT NULL;--> statement-breakpoint
ALTER TABLE `asset` ADD `successor_id` int;--> statement-breakpoint
ALTER TABLE `asset` ADD `note` text;--> statement-breakpoint
ALTER TABLE `asset` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `place` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `place` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `person` ADD `department` varchar(120);--> statement-breakpoint
ALTER TABLE `person` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `person` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `team` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `team` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `vendor` ADD `minimum_minutes` int;--> statement-breakpoint
ALTER TABLE `vendor` ADD `step_minutes` int;--> statement-breakpoint
ALTER TABLE `vendor` ADD `contract_number` varchar(60);--> statement-breakpoint
ALTER TABLE `vendor` ADD `licence_until` date;--> statement-breakpoint
ALTER TABLE `vendor` ADD `bank_name` varchar(80);--> statement-breakpoint
ALTER TABLE `vendor` ADD `iban` varchar(34);--> statement-breakpoint
ALTER TABLE `vendor` ADD `note` text;--> statement-breakpoint
ALTER TABLE `vendor` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `vendor` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `equipment` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `equipment` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `part` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `part` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `store` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `store` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `payer` ADD `version` int DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE `payer` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `transfer` ADD CONSTRAINT `transfer_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transfer` ADD CONSTRAINT `transfer_from_site_id_site_id_fk` FOREIGN KEY (`from_site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transfer` ADD CONSTRAINT `transfer_from_place_id_place_id_fk` FOREIGN KEY (`from_place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transfer` ADD CONSTRAINT `transfer_from_parent_id_asset_id_fk` FOREIGN KEY (`from_parent_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transfer` ADD CONSTRAINT `transfer_to_site_id_site_id_fk` FOREIGN KEY (`to_site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transfer` ADD CONSTRAINT `transfer_to_place_id_place_id_fk` FOREIGN KEY (`to_place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transfer` ADD CONSTRAINT `transfer_asked_by_account_id_fk` FOREIGN KEY (`asked_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `transfer` ADD CONSTRAINT `transfer_decided_by_account_id_fk` FOREIGN KEY (`decided_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `transfer_asset` ON `transfer` (`asset_id`,`id`);--> statement-breakpoint
CREATE INDEX `transfer_from` ON `transfer` (`from_site_id`,`state`,`id`);--> statement-breakpoint
CREATE INDEX `transfer_to` ON `transfer` (`to_site_id`,`state`,`id`);--> statement-breakpoint
ALTER TABLE `asset` ADD CONSTRAINT `asset_successor_id_asset_id_fk` FOREIGN KEY (`successor_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `event_record` ON `event` (`register`,`record_id`,`id`);--> statement-breakpoint
CREATE INDEX `asset_path` ON `asset` (`path`);--> statement-breakpoint
CREATE INDEX `asset_parent` ON `asset` (`parent_id`);--> statement-breakpoint
CREATE INDEX `asset_serial` ON `asset` (`serial`);--> statement-breakpoint
CREATE INDEX `asset_name` ON `asset` (`site_id`,`name`);--> statement-breakpoint
CREATE INDEX `asset_find` ON `asset` (`tag`,`site_id`,`retired_at`,`search_text`);--> statement-breakpoint
CREATE INDEX `order_open` ON `work_order` (`state`,`place_id`,`asset_id`,`site_id`,`discarded_at`,`completion_due_at`,`clock_stopped_at`,`finished_at`);--> statement-breakpoint
CREATE INDEX `order_open_asset` ON `work_order` (`asset_id`,`state`);--> statement-breakpoint
CREATE INDEX `order_open_place` ON `work_order` (`place_id`,`state`);--> statement-breakpoint
CREATE INDEX `place_find` ON `place` (`site_id`,`code`,`retired_at`,`search_text`);--> statement-breakpoint
-- Where each asset stands in its tree.
UPDATE `asset` JOIN (
  WITH RECURSIVE tree AS (
    SELECT `id`, CAST(CONCAT('/', `id`, '/') AS CHAR(190)) AS path FROM `asset` WHERE `parent_id` IS NULL
    UNION ALL
    SELECT below.`id`, CONCAT(tree.path, below.`id`, '/') FROM `asset` below JOIN tree ON below.`parent_id` = tree.`id`
  ) SELECT `id`, path FROM tree
) placed ON placed.`id` = `asset`.`id` SET `asset`.`path` = placed.path;
--> statement-breakpoint
-- What is entered without a tag gets a number, at every site there is.
INSERT IGNORE INTO `numbering` (`site_id`, `series`, `prefix`, `next`)
SELECT `site_id`, 'asset', REPLACE(`prefix`, 'R', 'A'), 1 FROM `numbering` WHERE `series` = 'request';
