ALTER TABLE `vendor_bill` ADD CONSTRAINT `vendor_bill_visit` UNIQUE(`visit_id`);--> statement-breakpoint
CREATE INDEX `place_find` ON `place` (`site_id`,`code`,`search_text`);