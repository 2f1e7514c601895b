CREATE TABLE `lone_watch` (
	`visit_id` int NOT NULL,
	`checked_at` datetime(3) NOT NULL,
	`due_at` datetime(3) NOT NULL,
	`told_at` datetime(3),
	CONSTRAINT `lone_watch_visit_id` PRIMARY KEY(`visit_id`)
);
--> statement-breakpoint
CREATE TABLE `lone_work` (
	`order_id` int NOT NULL,
	`every_minutes` int NOT NULL,
	CONSTRAINT `lone_work_order_id` PRIMARY KEY(`order_id`)
);
--> statement-breakpoint
ALTER TABLE `lone_watch` ADD CONSTRAINT `lone_watch_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `lone_work` ADD CONSTRAINT `lone_work_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `lone_watch_due` ON `lone_watch` (`told_at`,`due_at`);