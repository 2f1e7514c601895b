CREATE TABLE `closure` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`place_id` int NOT NULL,
	`order_id` int NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`until_at` datetime(3) NOT NULL,
	`planned_until_at` datetime(3),
	`reason` varchar(200) NOT NULL,
	`state` varchar(12) NOT NULL,
	`affects` json NOT NULL,
	`bulletin_id` int,
	`uid` varchar(80) NOT NULL,
	`etag` varchar(200),
	`told` varchar(12) NOT NULL,
	`told_version` int NOT NULL DEFAULT 0,
	`told_at` datetime(3),
	`attempts` int NOT NULL DEFAULT 0,
	`try_at` datetime(3) NOT NULL,
	`problem` varchar(200),
	`created_by` int,
	`created_by_name` varchar(120) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `closure_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `closure` ADD CONSTRAINT `closure_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `closure` ADD CONSTRAINT `closure_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `closure` ADD CONSTRAINT `closure_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `closure` ADD CONSTRAINT `closure_bulletin_id_bulletin_id_fk` FOREIGN KEY (`bulletin_id`) REFERENCES `bulletin`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `closure` ADD CONSTRAINT `closure_created_by_account_id_fk` FOREIGN KEY (`created_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `closure_place` ON `closure` (`place_id`,`until_at`);--> statement-breakpoint
CREATE INDEX `closure_order` ON `closure` (`order_id`);--> statement-breakpoint
CREATE INDEX `closure_told` ON `closure` (`told`,`try_at`);