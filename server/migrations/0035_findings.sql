CREATE TABLE `finding_photo` (
	`finding_id` int NOT NULL,
	`attachment_id` int NOT NULL,
	CONSTRAINT `finding_photo_finding_id_attachment_id_pk` PRIMARY KEY(`finding_id`,`attachment_id`)
);
--> statement-breakpoint
ALTER TABLE `finding` MODIFY COLUMN `visit_id` int NOT NULL;--> statement-breakpoint
ALTER TABLE `finding` ADD `site_id` int NOT NULL;--> statement-breakpoint
ALTER TABLE `finding` ADD `mark` varchar(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `finding` ADD `step_id` int;--> statement-breakpoint
ALTER TABLE `finding` ADD `plan_id` int;--> statement-breakpoint
ALTER TABLE `finding` ADD `east` double;--> statement-breakpoint
ALTER TABLE `finding` ADD `north` double;--> statement-breakpoint
ALTER TABLE `finding` ADD `fixed_now` boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE `finding` ADD `found_by` varchar(120) NOT NULL;--> statement-breakpoint
ALTER TABLE `finding` ADD `set_aside_at` datetime(3);--> statement-breakpoint
ALTER TABLE `finding` ADD `set_aside_by` varchar(120);--> statement-breakpoint
ALTER TABLE `finding` ADD `set_aside_reason` text;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_mark` UNIQUE(`visit_id`,`mark`);--> statement-breakpoint
ALTER TABLE `finding_photo` ADD CONSTRAINT `finding_photo_finding_id_finding_id_fk` FOREIGN KEY (`finding_id`) REFERENCES `finding`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding_photo` ADD CONSTRAINT `finding_photo_attachment_id_attachment_id_fk` FOREIGN KEY (`attachment_id`) REFERENCES `attachment`(`id`) ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `finding_photo_attachment` ON `finding_photo` (`attachment_id`);--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_step_id_order_step_id_fk` FOREIGN KEY (`step_id`) REFERENCES `order_step`(`id`) ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_plan_id_place_id_fk` FOREIGN KEY (`plan_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `finding_answer` ON `finding` (`follow_up_order_id`);--> statement-breakpoint
CREATE INDEX `finding_open` ON `finding` (`site_id`,`fixed_now`,`set_aside_at`);