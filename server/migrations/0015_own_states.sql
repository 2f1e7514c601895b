CREATE TABLE `own_state` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`under` varchar(12) NOT NULL,
	`name` varchar(40) NOT NULL,
	`mark` varchar(12) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	`retired_at` datetime(3),
	CONSTRAINT `own_state_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `work_order` ADD `own_state_id` int;--> statement-breakpoint
ALTER TABLE `own_state` ADD CONSTRAINT `own_state_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `own_state_under` ON `own_state` (`site_id`,`under`);--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_own_state_id_own_state_id_fk` FOREIGN KEY (`own_state_id`) REFERENCES `own_state`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `order_own_state` ON `work_order` (`own_state_id`,`completion_due_at`,`id`);