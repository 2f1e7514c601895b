ALTER TABLE `visit` ADD `answer` varchar(12);--> statement-breakpoint
ALTER TABLE `visit` ADD `answered_at` datetime(3);--> statement-breakpoint
ALTER TABLE `visit` ADD `answer_note` varchar(300);--> statement-breakpoint
ALTER TABLE `visit` ADD `proposed_start` datetime(3);--> statement-breakpoint
ALTER TABLE `visit` ADD `proposed_end` datetime(3);--> statement-breakpoint
ALTER TABLE `visit` ADD `remind_at` datetime(3);--> statement-breakpoint
ALTER TABLE `visit` ADD `tell_at` datetime(3);--> statement-breakpoint
ALTER TABLE `visit` ADD `silent_at` datetime(3);--> statement-breakpoint
CREATE INDEX `visit_remind` ON `visit` (`remind_at`);--> statement-breakpoint
CREATE INDEX `visit_tell` ON `visit` (`tell_at`);