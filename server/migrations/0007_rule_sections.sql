CREATE TABLE `rule_section` (
	`site_id` int NOT NULL,
	`section` varchar(24) NOT NULL,
	`content` json,
	`version` int NOT NULL,
	CONSTRAINT `rule_section_site_id_section_pk` PRIMARY KEY(`site_id`,`section`)
);
--> statement-breakpoint
INSERT INTO `rule_section` (`site_id`, `section`, `content`, `version`) SELECT `site_id`, 'matrix', json_extract(`content`, '$.matrix'), `version` FROM `rule_book` WHERE json_exists(`content`, '$.matrix');--> statement-breakpoint
INSERT INTO `rule_section` (`site_id`, `section`, `content`, `version`) SELECT `site_id`, 'hazards', json_extract(`content`, '$.hazards'), `version` FROM `rule_book` WHERE json_exists(`content`, '$.hazards');--> statement-breakpoint
INSERT INTO `rule_section` (`site_id`, `section`, `content`, `version`) SELECT `site_id`, 'completeness', json_extract(`content`, '$.completeness'), `version` FROM `rule_book` WHERE json_exists(`content`, '$.completeness');--> statement-breakpoint
INSERT INTO `rule_section` (`site_id`, `section`, `content`, `version`) SELECT `site_id`, 'reasons', json_extract(`content`, '$.reasons'), `version` FROM `rule_book` WHERE json_exists(`content`, '$.reasons');--> statement-breakpoint
INSERT INTO `rule_section` (`site_id`, `section`, `content`, `version`) SELECT `site_id`, 'approvals', json_extract(`content`, '$.approvals'), `version` FROM `rule_book` WHERE json_exists(`content`, '$.approvals');--> statement-breakpoint
INSERT INTO `rule_section` (`site_id`, `section`, `content`, `version`) SELECT `site_id`, 'escalations', json_extract(`content`, '$.escalations'), `version` FROM `rule_book` WHERE json_exists(`content`, '$.escalations');--> statement-breakpoint
INSERT INTO `rule_section` (`site_id`, `section`, `content`, `version`) SELECT `site_id`, 'ownSubmissions', json_extract(`content`, '$.ownSubmissions'), `version` FROM `rule_book` WHERE json_exists(`content`, '$.ownSubmissions');--> statement-breakpoint
DROP TABLE `rule_book`;--> statement-breakpoint
ALTER TABLE `site` ADD `calendar_version` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `rule_section` ADD CONSTRAINT `rule_section_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;