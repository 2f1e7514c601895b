CREATE TABLE `travel_time` (
	`from_id` int NOT NULL,
	`to_id` int NOT NULL,
	`source` varchar(8) NOT NULL,
	`minutes` smallint NOT NULL,
	`seen` int,
	`said_by` varchar(120),
	`said_at` datetime(3) NOT NULL,
	CONSTRAINT `travel_time_from_id_to_id_source_pk` PRIMARY KEY(`from_id`,`to_id`,`source`)
);
--> statement-breakpoint
ALTER TABLE `place` ADD `position` varchar(40);--> statement-breakpoint
ALTER TABLE `travel_time` ADD CONSTRAINT `travel_time_from_id_place_id_fk` FOREIGN KEY (`from_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `travel_time` ADD CONSTRAINT `travel_time_to_id_place_id_fk` FOREIGN KEY (`to_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;