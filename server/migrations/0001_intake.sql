CREATE TABLE `incoming_mail` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`once_key` varchar(250) NOT NULL,
	`sender` varchar(190) NOT NULL,
	`recipient` varchar(250) NOT NULL,
	`subject` varchar(250),
	`received_at` datetime(3) NOT NULL,
	`state` varchar(12) NOT NULL,
	`reason` varchar(300),
	`attempts` smallint NOT NULL DEFAULT 0,
	`raw` mediumblob NOT NULL,
	`request_id` int,
	CONSTRAINT `incoming_mail_id` PRIMARY KEY(`id`),
	CONSTRAINT `incoming_mail_once` UNIQUE(`site_id`,`once_key`)
);
--> statement-breakpoint
CREATE TABLE `mail_wording` (
	`site_id` int NOT NULL,
	`occasion` varchar(40) NOT NULL,
	`subject` varchar(200) NOT NULL,
	`text` text NOT NULL,
	CONSTRAINT `mail_wording_site_id_occasion_pk` PRIMARY KEY(`site_id`,`occasion`)
);
--> statement-breakpoint
CREATE TABLE `article` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`category_id` int,
	`title` varchar(140) NOT NULL,
	`body` mediumtext NOT NULL,
	`search_text` varchar(2000) NOT NULL,
	`written_by` int,
	`changed_at` datetime(3) NOT NULL,
	`withdrawn_at` datetime(3),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `article_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `bulletin_place` (
	`bulletin_id` int NOT NULL,
	`place_id` int NOT NULL,
	CONSTRAINT `bulletin_place_bulletin_id_place_id_pk` PRIMARY KEY(`bulletin_id`,`place_id`)
);
--> statement-breakpoint
CREATE TABLE `bulletin` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`kind` varchar(12) NOT NULL,
	`title` varchar(140) NOT NULL,
	`body` mediumtext NOT NULL,
	`starts_at` datetime(3) NOT NULL,
	`ends_at` datetime(3) NOT NULL,
	`written_by` int,
	`withdrawn_at` datetime(3),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `bulletin_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `api_key` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`name` varchar(80) NOT NULL,
	`key_hash` varchar(64) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`created_by` int,
	`last_used_at` datetime(3),
	`revoked_at` datetime(3),
	CONSTRAINT `api_key_id` PRIMARY KEY(`id`),
	CONSTRAINT `api_key_hash` UNIQUE(`key_hash`)
);
--> statement-breakpoint
CREATE TABLE `category_form` (
	`id` int AUTO_INCREMENT NOT NULL,
	`category_id` int NOT NULL,
	`round` int NOT NULL,
	`questions` json NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`made_by` int,
	CONSTRAINT `category_form_id` PRIMARY KEY(`id`),
	CONSTRAINT `category_form_round` UNIQUE(`category_id`,`round`)
);
--> statement-breakpoint
CREATE TABLE `comment` (
	`id` int AUTO_INCREMENT NOT NULL,
	`request_id` int NOT NULL,
	`kind` varchar(12) NOT NULL,
	`account_id` int,
	`author_name` varchar(120) NOT NULL,
	`text` text NOT NULL,
	`quoted` text,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `comment_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `request_follower` (
	`id` int AUTO_INCREMENT NOT NULL,
	`request_id` int NOT NULL,
	`email` varchar(190) NOT NULL,
	`name` varchar(120),
	`at` datetime(3) NOT NULL,
	`link_hash` varchar(64) NOT NULL,
	`link_nonce` varchar(32) NOT NULL,
	CONSTRAINT `request_follower_id` PRIMARY KEY(`id`),
	CONSTRAINT `request_follower_once` UNIQUE(`request_id`,`email`),
	CONSTRAINT `request_follower_link` UNIQUE(`link_hash`)
);
--> statement-breakpoint
CREATE TABLE `reporter_link` (
	`id` int AUTO_INCREMENT NOT NULL,
	`email` varchar(190) NOT NULL,
	`site_id` int NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`nonce` varchar(32) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `reporter_link_id` PRIMARY KEY(`id`),
	CONSTRAINT `reporter_link_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
ALTER TABLE `attachment` ADD `comment_id` int;--> statement-breakpoint
ALTER TABLE `attachment` ADD `article_id` int;--> statement-breakpoint
ALTER TABLE `attachment` ADD `kind` varchar(12) DEFAULT 'picture' NOT NULL;--> statement-breakpoint
ALTER TABLE `attachment` ADD `thumb` mediumblob;--> statement-breakpoint
ALTER TABLE `mail` ADD `html` text;--> statement-breakpoint
ALTER TABLE `mail` ADD `request_id` int;--> statement-breakpoint
ALTER TABLE `mail` ADD `from` varchar(190);--> statement-breakpoint
ALTER TABLE `mail` ADD `in_reply_to` varchar(250);--> statement-breakpoint
ALTER TABLE `site` ADD `counter_fields` json;--> statement-breakpoint
ALTER TABLE `site` ADD `shared_messages` boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE `account` ADD `call_preset` json;--> statement-breakpoint
ALTER TABLE `category` ADD `hint` varchar(160);--> statement-breakpoint
ALTER TABLE `category` ADD `position` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `category` ADD `retired_at` datetime(3);--> statement-breakpoint
ALTER TABLE `request` ADD `form_id` int;--> statement-breakpoint
ALTER TABLE `request` ADD `answers` json;--> statement-breakpoint
ALTER TABLE `request` ADD `sent_by` json;--> statement-breakpoint
ALTER TABLE `request` ADD `api_key_id` int;--> statement-breakpoint
ALTER TABLE `request` ADD `repeats_id` int;--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD CONSTRAINT `incoming_mail_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `incoming_mail` ADD CONSTRAINT `incoming_mail_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mail_wording` ADD CONSTRAINT `mail_wording_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `article` ADD CONSTRAINT `article_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `article` ADD CONSTRAINT `article_category_id_category_id_fk` FOREIGN KEY (`category_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `article` ADD CONSTRAINT `article_written_by_account_id_fk` FOREIGN KEY (`written_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bulletin_place` ADD CONSTRAINT `bulletin_place_bulletin_id_bulletin_id_fk` FOREIGN KEY (`bulletin_id`) REFERENCES `bulletin`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bulletin_place` ADD CONSTRAINT `bulletin_place_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bulletin` ADD CONSTRAINT `bulletin_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `bulletin` ADD CONSTRAINT `bulletin_written_by_account_id_fk` FOREIGN KEY (`written_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `api_key` ADD CONSTRAINT `api_key_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `api_key` ADD CONSTRAINT `api_key_created_by_account_id_fk` FOREIGN KEY (`created_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `category_form` ADD CONSTRAINT `category_form_category_id_category_id_fk` FOREIGN KEY (`category_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `category_form` ADD CONSTRAINT `category_form_made_by_account_id_fk` FOREIGN KEY (`made_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `comment` ADD CONSTRAINT `comment_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `comment` ADD CONSTRAINT `comment_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request_follower` ADD CONSTRAINT `request_follower_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `reporter_link` ADD CONSTRAINT `reporter_link_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `incoming_mail_waiting` ON `incoming_mail` (`state`,`id`);--> statement-breakpoint
CREATE INDEX `bulletin_time` ON `bulletin` (`site_id`,`ends_at`);--> statement-breakpoint
CREATE INDEX `comment_request` ON `comment` (`request_id`,`id`);--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_comment_id_comment_id_fk` FOREIGN KEY (`comment_id`) REFERENCES `comment`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_article_id_article_id_fk` FOREIGN KEY (`article_id`) REFERENCES `article`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mail` ADD CONSTRAINT `mail_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_form_id_category_form_id_fk` FOREIGN KEY (`form_id`) REFERENCES `category_form`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_api_key_id_api_key_id_fk` FOREIGN KEY (`api_key_id`) REFERENCES `api_key`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_repeats_id_request_id_fk` FOREIGN KEY (`repeats_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `request_received` ON `request` (`site_id`,`received_at`,`id`);