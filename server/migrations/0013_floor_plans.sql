CREATE TABLE `asset_pin` (
	`asset_id` int NOT NULL,
	`plan_id` int NOT NULL,
	`east` double,
	`north` double,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `asset_pin_asset_id` PRIMARY KEY(`asset_id`)
);
--> statement-breakpoint
CREATE TABLE `floorplan` (
	`place_id` int NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`picture_id` int,
	`picture_left` double,
	`picture_bottom` double,
	`picture_width` double,
	`picture_strength` smallint,
	CONSTRAINT `floorplan_place_id` PRIMARY KEY(`place_id`)
);
--> statement-breakpoint
CREATE TABLE `space_shape` (
	`space_id` int NOT NULL,
	`plan_id` int NOT NULL,
	`shape` json NOT NULL,
	CONSTRAINT `space_shape_space_id` PRIMARY KEY(`space_id`)
);
--> statement-breakpoint
ALTER TABLE `asset_pin` ADD CONSTRAINT `asset_pin_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asset_pin` ADD CONSTRAINT `asset_pin_plan_id_floorplan_place_id_fk` FOREIGN KEY (`plan_id`) REFERENCES `floorplan`(`place_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `floorplan` ADD CONSTRAINT `floorplan_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `floorplan` ADD CONSTRAINT `floorplan_picture_id_attachment_id_fk` FOREIGN KEY (`picture_id`) REFERENCES `attachment`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `space_shape` ADD CONSTRAINT `space_shape_space_id_place_id_fk` FOREIGN KEY (`space_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `space_shape` ADD CONSTRAINT `space_shape_plan_id_floorplan_place_id_fk` FOREIGN KEY (`plan_id`) REFERENCES `floorplan`(`place_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `asset_pin_plan` ON `asset_pin` (`plan_id`);--> statement-breakpoint
CREATE INDEX `space_shape_plan` ON `space_shape` (`plan_id`);--> statement-breakpoint
INSERT INTO `floorplan` (`place_id`, `version`) SELECT DISTINCT `parent_id`, 1 FROM `place` WHERE `kind` = 'space' AND `outline` IS NOT NULL AND JSON_TYPE(`outline`) = 'ARRAY' AND `parent_id` IS NOT NULL;--> statement-breakpoint
INSERT INTO `space_shape` (`space_id`, `plan_id`, `shape`) SELECT `id`, `parent_id`, CONCAT('[', `outline`, ']') FROM `place` WHERE `kind` = 'space' AND `outline` IS NOT NULL AND JSON_TYPE(`outline`) = 'ARRAY' AND `parent_id` IS NOT NULL;--> statement-breakpoint
ALTER TABLE `place` DROP COLUMN `outline`;