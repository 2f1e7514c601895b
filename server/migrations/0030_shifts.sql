CREATE TABLE `leave_ask` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`technician_id` int NOT NULL,
	`from_day` date NOT NULL,
	`until_day` date NOT NULL,
	`reason` varchar(120),
	`state` varchar(12) NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`decided_at` datetime(3),
	`decided_by` int,
	`decided_by_name` varchar(120),
	`answer` varchar(300),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `leave_ask_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `rota_swap` (
	`id` int AUTO_INCREMENT NOT NULL,
	`team_id` int NOT NULL,
	`technician_id` int NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`until_at` datetime(3) NOT NULL,
	`reason` varchar(120),
	CONSTRAINT `rota_swap_id` PRIMARY KEY(`id`),
	CONSTRAINT `rota_swap_once` UNIQUE(`team_id`,`from_at`,`technician_id`)
);
--> statement-breakpoint
CREATE TABLE `rota` (
	`team_id` int NOT NULL,
	`member_ids` json NOT NULL,
	`start_day` date NOT NULL,
	`turn_days` int NOT NULL,
	`handover` varchar(5) NOT NULL,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `rota_team_id` PRIMARY KEY(`team_id`)
);
--> statement-breakpoint
ALTER TABLE `leave` ADD `uid` varchar(300);--> statement-breakpoint
ALTER TABLE `leave_ask` ADD CONSTRAINT `leave_ask_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `leave_ask` ADD CONSTRAINT `leave_ask_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `leave_ask` ADD CONSTRAINT `leave_ask_decided_by_account_id_fk` FOREIGN KEY (`decided_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rota_swap` ADD CONSTRAINT `rota_swap_team_id_team_id_fk` FOREIGN KEY (`team_id`) REFERENCES `team`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rota_swap` ADD CONSTRAINT `rota_swap_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rota` ADD CONSTRAINT `rota_team_id_team_id_fk` FOREIGN KEY (`team_id`) REFERENCES `team`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `leave_ask_site` ON `leave_ask` (`site_id`,`state`);--> statement-breakpoint
CREATE INDEX `leave_ask_technician` ON `leave_ask` (`technician_id`);--> statement-breakpoint
CREATE INDEX `rota_swap_team` ON `rota_swap` (`team_id`,`until_at`);