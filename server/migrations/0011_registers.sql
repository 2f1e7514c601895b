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
ALTER TABLE `asset` ADD CONSTRAINT `asset_successor_id_asset_id_fk` FOREIGN KEY (`successor_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `event_record` ON `event` (`register`,`record_id`,`id`);--> statement-breakpoint
CREATE INDEX `asset_path` ON `asset` (`path`);--> statement-breakpoint
CREATE INDEX `asset_parent` ON `asset` (`parent_id`);--> statement-breakpoint
CREATE INDEX `asset_serial` ON `asset` (`serial`);--> statement-breakpoint
CREATE INDEX `asset_name` ON `asset` (`site_id`,`name`);--> statement-breakpoint
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
