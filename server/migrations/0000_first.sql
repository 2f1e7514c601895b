CREATE TABLE `attachment` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`claim_hash` varchar(64),
	`request_id` int,
	`order_id` int,
	`visit_id` int,
	`name` varchar(160) NOT NULL,
	`mime` varchar(60) NOT NULL,
	`width` int,
	`height` int,
	`bytes` int NOT NULL,
	`content` mediumblob NOT NULL,
	`shared` boolean NOT NULL DEFAULT false,
	`vendor_id` int,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `attachment_id` PRIMARY KEY(`id`),
	CONSTRAINT `attachment_claim` UNIQUE(`claim_hash`)
);
--> statement-breakpoint
CREATE TABLE `event` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`seq` bigint,
	`at` datetime(3) NOT NULL,
	`kind` varchar(40) NOT NULL,
	`site_id` int,
	`request_id` int,
	`order_id` int,
	`visit_id` int,
	`actor_id` int,
	`actor_name` varchar(120) NOT NULL,
	`from_state` varchar(12),
	`to_state` varchar(12),
	`reason` text,
	`details` json,
	CONSTRAINT `event_id` PRIMARY KEY(`id`),
	CONSTRAINT `event_seq` UNIQUE(`seq`)
);
--> statement-breakpoint
CREATE TABLE `idempotency_key` (
	`id` int AUTO_INCREMENT NOT NULL,
	`scope` varchar(80) NOT NULL,
	`key` varchar(80) NOT NULL,
	`endpoint` varchar(80) NOT NULL,
	`input_hash` varchar(64) NOT NULL,
	`answer` json,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `idempotency_key_id` PRIMARY KEY(`id`),
	CONSTRAINT `idempotency_once` UNIQUE(`scope`,`key`)
);
--> statement-breakpoint
CREATE TABLE `mail` (
	`id` int AUTO_INCREMENT NOT NULL,
	`event_id` bigint,
	`occasion` varchar(40) NOT NULL,
	`to` varchar(190) NOT NULL,
	`subject` varchar(250) NOT NULL,
	`text` text NOT NULL,
	`state` varchar(12) NOT NULL,
	`attempts` smallint NOT NULL DEFAULT 0,
	`next_at` datetime(3) NOT NULL,
	`sent_at` datetime(3),
	`last_error` varchar(300),
	CONSTRAINT `mail_id` PRIMARY KEY(`id`),
	CONSTRAINT `mail_once` UNIQUE(`event_id`,`occasion`,`to`)
);
--> statement-breakpoint
CREATE TABLE `notice` (
	`id` int AUTO_INCREMENT NOT NULL,
	`event_id` bigint NOT NULL,
	`account_id` int NOT NULL,
	`sentence` varchar(300) NOT NULL,
	`order_id` int,
	`request_id` int,
	`at` datetime(3) NOT NULL,
	`read_at` datetime(3),
	CONSTRAINT `notice_id` PRIMARY KEY(`id`),
	CONSTRAINT `notice_once` UNIQUE(`event_id`,`account_id`)
);
--> statement-breakpoint
CREATE TABLE `asset` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`parent_id` int,
	`place_id` int NOT NULL,
	`tag` varchar(32) NOT NULL,
	`name` varchar(120) NOT NULL,
	`class_code` varchar(12) NOT NULL,
	`maker` varchar(80),
	`model` varchar(80),
	`serial` varchar(80),
	`installed_on` date,
	`price_minor` int,
	`warranty_until` date,
	`vendor_id` int,
	`payer_id` int,
	`search_text` varchar(400) NOT NULL,
	`retired_at` datetime(3),
	CONSTRAINT `asset_id` PRIMARY KEY(`id`),
	CONSTRAINT `asset_tag` UNIQUE(`site_id`,`tag`)
);
--> statement-breakpoint
CREATE TABLE `place` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`parent_id` int,
	`kind` varchar(12) NOT NULL,
	`code` varchar(32) NOT NULL,
	`name` varchar(120) NOT NULL,
	`path` varchar(190) NOT NULL,
	`search_text` varchar(400) NOT NULL,
	`access` text,
	`outline` json,
	`payer_id` int,
	CONSTRAINT `place_id` PRIMARY KEY(`id`),
	CONSTRAINT `place_code` UNIQUE(`site_id`,`code`)
);
--> statement-breakpoint
CREATE TABLE `site` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(8) NOT NULL,
	`name` varchar(120) NOT NULL,
	`zone` varchar(64) NOT NULL,
	`currency` varchar(3) NOT NULL,
	`calendar` json NOT NULL,
	`desk_phone` varchar(40) NOT NULL,
	`desk_email` varchar(190) NOT NULL,
	`triage_minutes` int NOT NULL,
	CONSTRAINT `site_id` PRIMARY KEY(`id`),
	CONSTRAINT `site_code_unique` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `account_role` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`role` varchar(16) NOT NULL,
	`site_id` int,
	CONSTRAINT `account_role_id` PRIMARY KEY(`id`),
	CONSTRAINT `account_role_once` UNIQUE(`account_id`,`role`,`site_id`)
);
--> statement-breakpoint
CREATE TABLE `account` (
	`id` int AUTO_INCREMENT NOT NULL,
	`person_id` int NOT NULL,
	`email` varchar(190) NOT NULL,
	`password_hash` varchar(255) NOT NULL,
	`approval_limit_minor` int,
	`failed_logins` int NOT NULL DEFAULT 0,
	`wait_until` datetime(3),
	`disabled_at` datetime(3),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `account_id` PRIMARY KEY(`id`),
	CONSTRAINT `account_person_id_unique` UNIQUE(`person_id`),
	CONSTRAINT `account_email_unique` UNIQUE(`email`)
);
--> statement-breakpoint
CREATE TABLE `deputy` (
	`id` int AUTO_INCREMENT NOT NULL,
	`for_account_id` int NOT NULL,
	`deputy_account_id` int NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`until_at` datetime(3) NOT NULL,
	CONSTRAINT `deputy_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `leave` (
	`id` int AUTO_INCREMENT NOT NULL,
	`technician_id` int NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`until_at` datetime(3) NOT NULL,
	CONSTRAINT `leave_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `person` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`email` varchar(190),
	`phone` varchar(40),
	`extension` varchar(12),
	`title` varchar(120),
	`place_id` int,
	`payer_id` int,
	`search_text` varchar(400) NOT NULL,
	CONSTRAINT `person_id` PRIMARY KEY(`id`),
	CONSTRAINT `person_email` UNIQUE(`email`)
);
--> statement-breakpoint
CREATE TABLE `session` (
	`token_hash` varchar(64) NOT NULL,
	`account_id` int NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `session_token_hash` PRIMARY KEY(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `team` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`name` varchar(80) NOT NULL,
	CONSTRAINT `team_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `technician_rate` (
	`id` int AUTO_INCREMENT NOT NULL,
	`technician_id` int NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`normal_per_hour` int NOT NULL,
	`overtime_per_hour` int NOT NULL,
	CONSTRAINT `technician_rate_id` PRIMARY KEY(`id`),
	CONSTRAINT `technician_rate_from` UNIQUE(`technician_id`,`from_at`)
);
--> statement-breakpoint
CREATE TABLE `technician_trade` (
	`technician_id` int NOT NULL,
	`trade_id` int NOT NULL,
	CONSTRAINT `technician_trade_technician_id_trade_id_pk` PRIMARY KEY(`technician_id`,`trade_id`)
);
--> statement-breakpoint
CREATE TABLE `technician` (
	`id` int AUTO_INCREMENT NOT NULL,
	`account_id` int NOT NULL,
	`team_id` int NOT NULL,
	`shift` json NOT NULL,
	`step_minutes` int NOT NULL,
	`call_out_minutes` int NOT NULL,
	CONSTRAINT `technician_id` PRIMARY KEY(`id`),
	CONSTRAINT `technician_account_id_unique` UNIQUE(`account_id`)
);
--> statement-breakpoint
CREATE TABLE `trade` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(24) NOT NULL,
	`name` varchar(80) NOT NULL,
	CONSTRAINT `trade_id` PRIMARY KEY(`id`),
	CONSTRAINT `trade_code_unique` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `vendor_pass` (
	`id` int AUTO_INCREMENT NOT NULL,
	`visit_id` int NOT NULL,
	`nonce` varchar(32) NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`revoked_at` datetime(3),
	CONSTRAINT `vendor_pass_id` PRIMARY KEY(`id`),
	CONSTRAINT `vendor_pass_token` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `vendor_trade` (
	`vendor_id` int NOT NULL,
	`trade_id` int NOT NULL,
	CONSTRAINT `vendor_trade_vendor_id_trade_id_pk` PRIMARY KEY(`vendor_id`,`trade_id`)
);
--> statement-breakpoint
CREATE TABLE `vendor` (
	`id` int AUTO_INCREMENT NOT NULL,
	`name` varchar(120) NOT NULL,
	`email` varchar(190) NOT NULL,
	`phone` varchar(40),
	`contact_name` varchar(120),
	`service` varchar(120) NOT NULL,
	`call_out_minor` int NOT NULL,
	`per_hour_minor` int NOT NULL,
	`markup_bp` int NOT NULL,
	`contract_until` date,
	`insurance_until` date,
	CONSTRAINT `vendor_id` PRIMARY KEY(`id`),
	CONSTRAINT `vendor_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `category` (
	`id` int AUTO_INCREMENT NOT NULL,
	`parent_id` int,
	`code` varchar(32) NOT NULL,
	`name` varchar(80) NOT NULL,
	`trade_id` int,
	CONSTRAINT `category_id` PRIMARY KEY(`id`),
	CONSTRAINT `category_code_unique` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `request_order` (
	`request_id` int NOT NULL,
	`order_id` int NOT NULL,
	CONSTRAINT `request_order_request_id_order_id_pk` PRIMARY KEY(`request_id`,`order_id`)
);
--> statement-breakpoint
CREATE TABLE `request` (
	`id` int AUTO_INCREMENT NOT NULL,
	`number` varchar(16) NOT NULL,
	`site_id` int NOT NULL,
	`state` varchar(12) NOT NULL,
	`channel` varchar(12) NOT NULL,
	`summary` varchar(140) NOT NULL,
	`description` text NOT NULL,
	`written_summary` varchar(140) NOT NULL,
	`written_description` text NOT NULL,
	`reporter_id` int,
	`reporter_name` varchar(120),
	`reporter_email` varchar(190),
	`reporter_phone` varchar(40),
	`place_id` int,
	`asset_id` int,
	`category_id` int,
	`consequence` varchar(12),
	`urgency` varchar(12),
	`priority` varchar(12),
	`priority_sentence` varchar(300),
	`priority_overridden` boolean NOT NULL DEFAULT false,
	`wish` varchar(200),
	`payer_id` int,
	`outside_reference` varchar(80),
	`received_at` datetime(3) NOT NULL,
	`taken_up_at` datetime(3),
	`taken_up_by` int,
	`decided_at` datetime(3),
	`triage_close_at` datetime(3) NOT NULL,
	`triage_due_at` datetime(3) NOT NULL,
	`question` text,
	`decline_reason` text,
	`joined_to_id` int,
	`link_hash` varchar(64) NOT NULL,
	`link_nonce` varchar(32) NOT NULL,
	`link_expires_at` datetime(3) NOT NULL,
	`link_revoked_at` datetime(3),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `request_id` PRIMARY KEY(`id`),
	CONSTRAINT `request_number` UNIQUE(`site_id`,`number`),
	CONSTRAINT `request_link` UNIQUE(`link_hash`)
);
--> statement-breakpoint
CREATE TABLE `approval` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`amount_minor` int NOT NULL,
	`asked_at` datetime(3) NOT NULL,
	`asked_by` int,
	`decided_at` datetime(3),
	`decided_by` int,
	`acting_for_id` int,
	`verdict` varchar(12),
	`note` text,
	CONSTRAINT `approval_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `finding` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`visit_id` int,
	`place_id` int,
	`asset_id` int,
	`text` text NOT NULL,
	`severity` varchar(12) NOT NULL,
	`follow_up_order_id` int,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `finding_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `order_share` (
	`order_id` int NOT NULL,
	`payer_id` int NOT NULL,
	`share_bp` int NOT NULL,
	`position` smallint NOT NULL,
	CONSTRAINT `order_share_order_id_payer_id_pk` PRIMARY KEY(`order_id`,`payer_id`)
);
--> statement-breakpoint
CREATE TABLE `work_order` (
	`id` int AUTO_INCREMENT NOT NULL,
	`number` varchar(16) NOT NULL,
	`site_id` int NOT NULL,
	`state` varchar(12) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`summary` varchar(140) NOT NULL,
	`description` text NOT NULL,
	`place_id` int,
	`asset_id` int,
	`category_id` int,
	`trade_id` int,
	`team_id` int,
	`lead_id` int,
	`supervisor_id` int,
	`lead_order_id` int,
	`consequence` varchar(12),
	`urgency` varchar(12),
	`priority` varchar(12),
	`priority_rank` smallint NOT NULL DEFAULT 3,
	`priority_sentence` varchar(300),
	`estimate_minor` int,
	`contact_name` varchar(120),
	`contact_phone` varchar(40),
	`access` text,
	`note_for_worker` text,
	`note_for_payer` text,
	`outside_reference` varchar(80),
	`target_clock` varchar(12) NOT NULL,
	`target_start_at` datetime(3) NOT NULL,
	`response_due_at` datetime(3) NOT NULL,
	`close_at` datetime(3) NOT NULL,
	`completion_due_at` datetime(3) NOT NULL,
	`clock_stopped_at` datetime(3),
	`responded_at` datetime(3),
	`finished_at` datetime(3),
	`held_from` varchar(12),
	`hold_reason` varchar(12),
	`symptom` varchar(80),
	`cause` varchar(80),
	`fix` varchar(80),
	`outcome_note` text,
	`created_at` datetime(3) NOT NULL,
	`created_by` int,
	`submitted_by` int,
	`closed_at` datetime(3),
	`discarded_at` datetime(3),
	`archived` boolean NOT NULL DEFAULT false,
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `work_order_id` PRIMARY KEY(`id`),
	CONSTRAINT `order_number` UNIQUE(`site_id`,`number`)
);
--> statement-breakpoint
CREATE TABLE `step` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`position` smallint NOT NULL,
	`text` varchar(300) NOT NULL,
	`assignee_id` int,
	`done_at` datetime(3),
	`done_by` int,
	`unit` varchar(16),
	`measured` decimal(14,4),
	CONSTRAINT `step_id` PRIMARY KEY(`id`),
	CONSTRAINT `step_position` UNIQUE(`order_id`,`position`)
);
--> statement-breakpoint
CREATE TABLE `stint` (
	`id` int AUTO_INCREMENT NOT NULL,
	`visit_id` int NOT NULL,
	`order_id` int NOT NULL,
	`technician_id` int,
	`running_technician_id` int,
	`kind` varchar(12) NOT NULL,
	`start_at` datetime(3) NOT NULL,
	`end_at` datetime(3),
	`minutes` int,
	`per_hour_minor` int,
	`cost_minor` int,
	CONSTRAINT `stint_id` PRIMARY KEY(`id`),
	CONSTRAINT `stint_running` UNIQUE(`running_technician_id`)
);
--> statement-breakpoint
CREATE TABLE `visit` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`technician_id` int,
	`vendor_id` int,
	`kind` varchar(12) NOT NULL,
	`state` varchar(12) NOT NULL,
	`planned_start` datetime(3) NOT NULL,
	`planned_end` datetime(3) NOT NULL,
	`started_at` datetime(3),
	`ended_at` datetime(3),
	`result` varchar(12),
	`version` int NOT NULL DEFAULT 1,
	CONSTRAINT `visit_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `equipment` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`tag` varchar(32) NOT NULL,
	`name` varchar(120) NOT NULL,
	CONSTRAINT `equipment_id` PRIMARY KEY(`id`),
	CONSTRAINT `equipment_tag_unique` UNIQUE(`tag`)
);
--> statement-breakpoint
CREATE TABLE `equipment_loan` (
	`id` int AUTO_INCREMENT NOT NULL,
	`equipment_id` int NOT NULL,
	`order_id` int NOT NULL,
	`from_at` datetime(3) NOT NULL,
	`until_at` datetime(3),
	CONSTRAINT `equipment_loan_id` PRIMARY KEY(`id`),
	CONSTRAINT `equipment_loan_from` UNIQUE(`equipment_id`,`from_at`)
);
--> statement-breakpoint
CREATE TABLE `part` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(32) NOT NULL,
	`name` varchar(120) NOT NULL,
	`unit` varchar(16) NOT NULL,
	`search_text` varchar(400) NOT NULL,
	CONSTRAINT `part_id` PRIMARY KEY(`id`),
	CONSTRAINT `part_code_unique` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `stock_level` (
	`store_id` int NOT NULL,
	`part_id` int NOT NULL,
	`quantity` decimal(12,3) NOT NULL,
	`average_cost_minor` int NOT NULL,
	CONSTRAINT `stock_level_store_id_part_id_pk` PRIMARY KEY(`store_id`,`part_id`)
);
--> statement-breakpoint
CREATE TABLE `stock_movement` (
	`id` int AUTO_INCREMENT NOT NULL,
	`store_id` int NOT NULL,
	`part_id` int NOT NULL,
	`kind` varchar(12) NOT NULL,
	`quantity` decimal(12,3) NOT NULL,
	`unit_cost_minor` int NOT NULL,
	`order_id` int,
	`visit_id` int,
	`at` datetime(3) NOT NULL,
	`by` int,
	CONSTRAINT `stock_movement_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `store` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`place_id` int,
	`name` varchar(80) NOT NULL,
	CONSTRAINT `store_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `charge_line` (
	`id` int AUTO_INCREMENT NOT NULL,
	`charge_id` int NOT NULL,
	`kind` varchar(12) NOT NULL,
	`source_id` int NOT NULL,
	`description` varchar(240) NOT NULL,
	`quantity` decimal(12,3) NOT NULL,
	`unit` varchar(16) NOT NULL,
	`unit_cost_minor` int NOT NULL,
	`cost_minor` int NOT NULL,
	`markup_bp` int NOT NULL,
	`net_minor` int NOT NULL,
	CONSTRAINT `charge_line_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `charge` (
	`id` int AUTO_INCREMENT NOT NULL,
	`posting_id` int NOT NULL,
	`order_id` int NOT NULL,
	`payer_id` int NOT NULL,
	`month` varchar(7) NOT NULL,
	`own_cost` boolean NOT NULL,
	`share_bp` int NOT NULL,
	`net_minor` int NOT NULL,
	`tax_bp` int NOT NULL,
	`tax_minor` int NOT NULL,
	`gross_minor` int NOT NULL,
	CONSTRAINT `charge_id` PRIMARY KEY(`id`),
	CONSTRAINT `charge_once` UNIQUE(`posting_id`,`payer_id`)
);
--> statement-breakpoint
CREATE TABLE `journal_entry` (
	`id` int AUTO_INCREMENT NOT NULL,
	`posting_id` int NOT NULL,
	`account` varchar(60) NOT NULL,
	`debit_minor` int NOT NULL,
	`credit_minor` int NOT NULL,
	CONSTRAINT `journal_entry_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `markup` (
	`kind` varchar(12) NOT NULL,
	`markup_bp` int NOT NULL,
	CONSTRAINT `markup_kind` PRIMARY KEY(`kind`)
);
--> statement-breakpoint
CREATE TABLE `payable` (
	`id` int AUTO_INCREMENT NOT NULL,
	`posting_id` int NOT NULL,
	`order_id` int NOT NULL,
	`vendor_id` int NOT NULL,
	`net_minor` int NOT NULL,
	`tax_minor` int NOT NULL,
	`payment_id` int,
	CONSTRAINT `payable_id` PRIMARY KEY(`id`),
	CONSTRAINT `payable_once` UNIQUE(`posting_id`,`vendor_id`)
);
--> statement-breakpoint
CREATE TABLE `payer` (
	`id` int AUTO_INCREMENT NOT NULL,
	`code` varchar(16) NOT NULL,
	`name` varchar(120) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`tax_bp` int NOT NULL,
	`email` varchar(190),
	`budget_minor` int,
	`ends_on` date,
	CONSTRAINT `payer_id` PRIMARY KEY(`id`),
	CONSTRAINT `payer_code_unique` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `payment` (
	`id` int AUTO_INCREMENT NOT NULL,
	`vendor_id` int NOT NULL,
	`amount_minor` int NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `payment_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `period` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`month` varchar(7) NOT NULL,
	`closed_at` datetime(3),
	`closed_by` int,
	CONSTRAINT `period_id` PRIMARY KEY(`id`),
	CONSTRAINT `period_month` UNIQUE(`site_id`,`month`)
);
--> statement-breakpoint
CREATE TABLE `posting` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`site_id` int NOT NULL,
	`kind` varchar(12) NOT NULL,
	`round` int NOT NULL,
	`reverses_id` int,
	`month` varchar(7) NOT NULL,
	`at` datetime(3) NOT NULL,
	`by` int,
	`reason` varchar(500),
	CONSTRAINT `posting_id` PRIMARY KEY(`id`),
	CONSTRAINT `posting_once` UNIQUE(`order_id`,`round`,`kind`),
	CONSTRAINT `posting_reversed_once` UNIQUE(`reverses_id`)
);
--> statement-breakpoint
CREATE TABLE `vendor_bill_line` (
	`id` int AUTO_INCREMENT NOT NULL,
	`bill_id` int NOT NULL,
	`description` varchar(200) NOT NULL,
	`quantity` decimal(12,3) NOT NULL,
	`unit_price_minor` int NOT NULL,
	`amount_minor` int NOT NULL,
	CONSTRAINT `vendor_bill_line_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `vendor_bill` (
	`id` int AUTO_INCREMENT NOT NULL,
	`order_id` int NOT NULL,
	`visit_id` int NOT NULL,
	`vendor_id` int NOT NULL,
	`number` varchar(40) NOT NULL,
	`tax_bp` int NOT NULL,
	`entered_at` datetime(3) NOT NULL,
	CONSTRAINT `vendor_bill_id` PRIMARY KEY(`id`),
	CONSTRAINT `vendor_bill_number` UNIQUE(`vendor_id`,`number`)
);
--> statement-breakpoint
CREATE TABLE `due` (
	`id` int AUTO_INCREMENT NOT NULL,
	`plan_id` int NOT NULL,
	`due_on` date NOT NULL,
	`order_id` int,
	`done_at` datetime(3),
	CONSTRAINT `due_id` PRIMARY KEY(`id`),
	CONSTRAINT `due_once` UNIQUE(`plan_id`,`due_on`)
);
--> statement-breakpoint
CREATE TABLE `meter_reading` (
	`id` int AUTO_INCREMENT NOT NULL,
	`asset_id` int NOT NULL,
	`unit` varchar(16) NOT NULL,
	`value` decimal(14,3) NOT NULL,
	`at` datetime(3) NOT NULL,
	CONSTRAINT `meter_reading_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `preventive_plan` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`name` varchar(120) NOT NULL,
	`asset_id` int,
	`place_id` int,
	`trade_id` int,
	`rule` varchar(200) NOT NULL,
	`lead_days` int NOT NULL,
	`starts_on` date NOT NULL,
	CONSTRAINT `preventive_plan_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `numbering` (
	`site_id` int NOT NULL,
	`series` varchar(12) NOT NULL,
	`prefix` varchar(4) NOT NULL,
	`next` int NOT NULL,
	CONSTRAINT `numbering_site_id_series_pk` PRIMARY KEY(`site_id`,`series`)
);
--> statement-breakpoint
CREATE TABLE `setting` (
	`name` varchar(60) NOT NULL,
	`value` json NOT NULL,
	CONSTRAINT `setting_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
CREATE TABLE `target_rule` (
	`id` int AUTO_INCREMENT NOT NULL,
	`site_id` int NOT NULL,
	`priority` varchar(12) NOT NULL,
	`clock` varchar(12) NOT NULL,
	`response_minutes` int NOT NULL,
	`completion_minutes` int NOT NULL,
	CONSTRAINT `target_rule_id` PRIMARY KEY(`id`),
	CONSTRAINT `target_rule_priority` UNIQUE(`site_id`,`priority`)
);
--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `attachment` ADD CONSTRAINT `attachment_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event` ADD CONSTRAINT `event_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event` ADD CONSTRAINT `event_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event` ADD CONSTRAINT `event_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event` ADD CONSTRAINT `event_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event` ADD CONSTRAINT `event_actor_id_account_id_fk` FOREIGN KEY (`actor_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `mail` ADD CONSTRAINT `mail_event_id_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `event`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `notice` ADD CONSTRAINT `notice_event_id_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `event`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `notice` ADD CONSTRAINT `notice_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `notice` ADD CONSTRAINT `notice_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `notice` ADD CONSTRAINT `notice_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asset` ADD CONSTRAINT `asset_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asset` ADD CONSTRAINT `asset_parent_id_asset_id_fk` FOREIGN KEY (`parent_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asset` ADD CONSTRAINT `asset_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asset` ADD CONSTRAINT `asset_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `asset` ADD CONSTRAINT `asset_payer_id_payer_id_fk` FOREIGN KEY (`payer_id`) REFERENCES `payer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `place` ADD CONSTRAINT `place_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `place` ADD CONSTRAINT `place_parent_id_place_id_fk` FOREIGN KEY (`parent_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `place` ADD CONSTRAINT `place_payer_id_payer_id_fk` FOREIGN KEY (`payer_id`) REFERENCES `payer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `account_role` ADD CONSTRAINT `account_role_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `account_role` ADD CONSTRAINT `account_role_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `account` ADD CONSTRAINT `account_person_id_person_id_fk` FOREIGN KEY (`person_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `deputy` ADD CONSTRAINT `deputy_for_account_id_account_id_fk` FOREIGN KEY (`for_account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `deputy` ADD CONSTRAINT `deputy_deputy_account_id_account_id_fk` FOREIGN KEY (`deputy_account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `leave` ADD CONSTRAINT `leave_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `person` ADD CONSTRAINT `person_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `person` ADD CONSTRAINT `person_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `person` ADD CONSTRAINT `person_payer_id_payer_id_fk` FOREIGN KEY (`payer_id`) REFERENCES `payer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `session` ADD CONSTRAINT `session_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `team` ADD CONSTRAINT `team_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `technician_rate` ADD CONSTRAINT `technician_rate_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `technician_trade` ADD CONSTRAINT `technician_trade_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `technician_trade` ADD CONSTRAINT `technician_trade_trade_id_trade_id_fk` FOREIGN KEY (`trade_id`) REFERENCES `trade`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `technician` ADD CONSTRAINT `technician_account_id_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `technician` ADD CONSTRAINT `technician_team_id_team_id_fk` FOREIGN KEY (`team_id`) REFERENCES `team`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_pass` ADD CONSTRAINT `vendor_pass_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_trade` ADD CONSTRAINT `vendor_trade_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_trade` ADD CONSTRAINT `vendor_trade_trade_id_trade_id_fk` FOREIGN KEY (`trade_id`) REFERENCES `trade`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `category` ADD CONSTRAINT `category_parent_id_category_id_fk` FOREIGN KEY (`parent_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `category` ADD CONSTRAINT `category_trade_id_trade_id_fk` FOREIGN KEY (`trade_id`) REFERENCES `trade`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request_order` ADD CONSTRAINT `request_order_request_id_request_id_fk` FOREIGN KEY (`request_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request_order` ADD CONSTRAINT `request_order_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_reporter_id_person_id_fk` FOREIGN KEY (`reporter_id`) REFERENCES `person`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_category_id_category_id_fk` FOREIGN KEY (`category_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_payer_id_payer_id_fk` FOREIGN KEY (`payer_id`) REFERENCES `payer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_taken_up_by_account_id_fk` FOREIGN KEY (`taken_up_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `request` ADD CONSTRAINT `request_joined_to_id_request_id_fk` FOREIGN KEY (`joined_to_id`) REFERENCES `request`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `approval` ADD CONSTRAINT `approval_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `approval` ADD CONSTRAINT `approval_asked_by_account_id_fk` FOREIGN KEY (`asked_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `approval` ADD CONSTRAINT `approval_decided_by_account_id_fk` FOREIGN KEY (`decided_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `approval` ADD CONSTRAINT `approval_acting_for_id_account_id_fk` FOREIGN KEY (`acting_for_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `finding` ADD CONSTRAINT `finding_follow_up_order_id_work_order_id_fk` FOREIGN KEY (`follow_up_order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_share` ADD CONSTRAINT `order_share_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `order_share` ADD CONSTRAINT `order_share_payer_id_payer_id_fk` FOREIGN KEY (`payer_id`) REFERENCES `payer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_category_id_category_id_fk` FOREIGN KEY (`category_id`) REFERENCES `category`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_trade_id_trade_id_fk` FOREIGN KEY (`trade_id`) REFERENCES `trade`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_team_id_team_id_fk` FOREIGN KEY (`team_id`) REFERENCES `team`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_lead_id_account_id_fk` FOREIGN KEY (`lead_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_supervisor_id_account_id_fk` FOREIGN KEY (`supervisor_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_lead_order_id_work_order_id_fk` FOREIGN KEY (`lead_order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_created_by_account_id_fk` FOREIGN KEY (`created_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `work_order` ADD CONSTRAINT `work_order_submitted_by_account_id_fk` FOREIGN KEY (`submitted_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `step` ADD CONSTRAINT `step_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `step` ADD CONSTRAINT `step_assignee_id_account_id_fk` FOREIGN KEY (`assignee_id`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `step` ADD CONSTRAINT `step_done_by_account_id_fk` FOREIGN KEY (`done_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stint` ADD CONSTRAINT `stint_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stint` ADD CONSTRAINT `stint_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stint` ADD CONSTRAINT `stint_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `visit` ADD CONSTRAINT `visit_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `visit` ADD CONSTRAINT `visit_technician_id_technician_id_fk` FOREIGN KEY (`technician_id`) REFERENCES `technician`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `visit` ADD CONSTRAINT `visit_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `equipment` ADD CONSTRAINT `equipment_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `equipment_loan` ADD CONSTRAINT `equipment_loan_equipment_id_equipment_id_fk` FOREIGN KEY (`equipment_id`) REFERENCES `equipment`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `equipment_loan` ADD CONSTRAINT `equipment_loan_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stock_level` ADD CONSTRAINT `stock_level_store_id_store_id_fk` FOREIGN KEY (`store_id`) REFERENCES `store`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stock_level` ADD CONSTRAINT `stock_level_part_id_part_id_fk` FOREIGN KEY (`part_id`) REFERENCES `part`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stock_movement` ADD CONSTRAINT `stock_movement_store_id_store_id_fk` FOREIGN KEY (`store_id`) REFERENCES `store`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stock_movement` ADD CONSTRAINT `stock_movement_part_id_part_id_fk` FOREIGN KEY (`part_id`) REFERENCES `part`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stock_movement` ADD CONSTRAINT `stock_movement_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stock_movement` ADD CONSTRAINT `stock_movement_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `stock_movement` ADD CONSTRAINT `stock_movement_by_account_id_fk` FOREIGN KEY (`by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `store` ADD CONSTRAINT `store_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `store` ADD CONSTRAINT `store_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `charge_line` ADD CONSTRAINT `charge_line_charge_id_charge_id_fk` FOREIGN KEY (`charge_id`) REFERENCES `charge`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `charge` ADD CONSTRAINT `charge_posting_id_posting_id_fk` FOREIGN KEY (`posting_id`) REFERENCES `posting`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `charge` ADD CONSTRAINT `charge_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `charge` ADD CONSTRAINT `charge_payer_id_payer_id_fk` FOREIGN KEY (`payer_id`) REFERENCES `payer`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `journal_entry` ADD CONSTRAINT `journal_entry_posting_id_posting_id_fk` FOREIGN KEY (`posting_id`) REFERENCES `posting`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payable` ADD CONSTRAINT `payable_posting_id_posting_id_fk` FOREIGN KEY (`posting_id`) REFERENCES `posting`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payable` ADD CONSTRAINT `payable_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payable` ADD CONSTRAINT `payable_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payable` ADD CONSTRAINT `payable_payment_id_payment_id_fk` FOREIGN KEY (`payment_id`) REFERENCES `payment`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `payment` ADD CONSTRAINT `payment_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `period` ADD CONSTRAINT `period_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `period` ADD CONSTRAINT `period_closed_by_account_id_fk` FOREIGN KEY (`closed_by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `posting` ADD CONSTRAINT `posting_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `posting` ADD CONSTRAINT `posting_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `posting` ADD CONSTRAINT `posting_reverses_id_posting_id_fk` FOREIGN KEY (`reverses_id`) REFERENCES `posting`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `posting` ADD CONSTRAINT `posting_by_account_id_fk` FOREIGN KEY (`by`) REFERENCES `account`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_bill_line` ADD CONSTRAINT `vendor_bill_line_bill_id_vendor_bill_id_fk` FOREIGN KEY (`bill_id`) REFERENCES `vendor_bill`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_bill` ADD CONSTRAINT `vendor_bill_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_bill` ADD CONSTRAINT `vendor_bill_visit_id_visit_id_fk` FOREIGN KEY (`visit_id`) REFERENCES `visit`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `vendor_bill` ADD CONSTRAINT `vendor_bill_vendor_id_vendor_id_fk` FOREIGN KEY (`vendor_id`) REFERENCES `vendor`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `due` ADD CONSTRAINT `due_plan_id_preventive_plan_id_fk` FOREIGN KEY (`plan_id`) REFERENCES `preventive_plan`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `due` ADD CONSTRAINT `due_order_id_work_order_id_fk` FOREIGN KEY (`order_id`) REFERENCES `work_order`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `meter_reading` ADD CONSTRAINT `meter_reading_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `preventive_plan` ADD CONSTRAINT `preventive_plan_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `preventive_plan` ADD CONSTRAINT `preventive_plan_asset_id_asset_id_fk` FOREIGN KEY (`asset_id`) REFERENCES `asset`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `preventive_plan` ADD CONSTRAINT `preventive_plan_place_id_place_id_fk` FOREIGN KEY (`place_id`) REFERENCES `place`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `preventive_plan` ADD CONSTRAINT `preventive_plan_trade_id_trade_id_fk` FOREIGN KEY (`trade_id`) REFERENCES `trade`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `numbering` ADD CONSTRAINT `numbering_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `target_rule` ADD CONSTRAINT `target_rule_site_id_site_id_fk` FOREIGN KEY (`site_id`) REFERENCES `site`(`id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `attachment_request` ON `attachment` (`request_id`);--> statement-breakpoint
CREATE INDEX `attachment_order` ON `attachment` (`order_id`);--> statement-breakpoint
CREATE INDEX `event_request` ON `event` (`request_id`,`id`);--> statement-breakpoint
CREATE INDEX `event_order` ON `event` (`order_id`,`id`);--> statement-breakpoint
CREATE INDEX `idempotency_at` ON `idempotency_key` (`at`);--> statement-breakpoint
CREATE INDEX `mail_waiting` ON `mail` (`state`,`next_at`);--> statement-breakpoint
CREATE INDEX `notice_account` ON `notice` (`account_id`,`read_at`);--> statement-breakpoint
CREATE INDEX `asset_place` ON `asset` (`place_id`);--> statement-breakpoint
CREATE INDEX `place_path` ON `place` (`path`);--> statement-breakpoint
CREATE INDEX `place_parent` ON `place` (`parent_id`);--> statement-breakpoint
CREATE INDEX `leave_technician` ON `leave` (`technician_id`,`from_at`);--> statement-breakpoint
CREATE INDEX `person_name` ON `person` (`name`);--> statement-breakpoint
CREATE INDEX `request_order_order` ON `request_order` (`order_id`);--> statement-breakpoint
CREATE INDEX `request_queue` ON `request` (`state`,`site_id`,`triage_due_at`,`id`);--> statement-breakpoint
CREATE INDEX `request_place` ON `request` (`place_id`,`received_at`);--> statement-breakpoint
CREATE INDEX `request_asset` ON `request` (`asset_id`,`received_at`);--> statement-breakpoint
CREATE INDEX `request_reporter` ON `request` (`reporter_email`,`received_at`);--> statement-breakpoint
CREATE INDEX `approval_order` ON `approval` (`order_id`);--> statement-breakpoint
CREATE INDEX `finding_order` ON `finding` (`order_id`);--> statement-breakpoint
CREATE INDEX `order_queue` ON `work_order` (`state`,`completion_due_at`,`id`);--> statement-breakpoint
CREATE INDEX `order_priority` ON `work_order` (`state`,`priority_rank`,`completion_due_at`,`id`);--> statement-breakpoint
CREATE INDEX `order_place` ON `work_order` (`place_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `order_asset` ON `work_order` (`asset_id`,`created_at`);--> statement-breakpoint
CREATE INDEX `order_lead` ON `work_order` (`lead_order_id`);--> statement-breakpoint
CREATE INDEX `stint_order` ON `stint` (`order_id`);--> statement-breakpoint
CREATE INDEX `stint_visit` ON `stint` (`visit_id`);--> statement-breakpoint
CREATE INDEX `visit_order` ON `visit` (`order_id`);--> statement-breakpoint
CREATE INDEX `visit_technician` ON `visit` (`technician_id`,`planned_start`);--> statement-breakpoint
CREATE INDEX `visit_vendor` ON `visit` (`vendor_id`,`planned_start`);--> statement-breakpoint
CREATE INDEX `stock_movement_order` ON `stock_movement` (`order_id`);--> statement-breakpoint
CREATE INDEX `stock_movement_part` ON `stock_movement` (`part_id`,`at`);--> statement-breakpoint
CREATE INDEX `charge_line_charge` ON `charge_line` (`charge_id`);--> statement-breakpoint
CREATE INDEX `charge_statement` ON `charge` (`payer_id`,`month`);--> statement-breakpoint
CREATE INDEX `journal_entry_posting` ON `journal_entry` (`posting_id`);--> statement-breakpoint
CREATE INDEX `journal_entry_account` ON `journal_entry` (`account`);--> statement-breakpoint
CREATE INDEX `payable_vendor` ON `payable` (`vendor_id`);--> statement-breakpoint
CREATE INDEX `posting_month` ON `posting` (`month`);--> statement-breakpoint
CREATE INDEX `vendor_bill_line_bill` ON `vendor_bill_line` (`bill_id`);--> statement-breakpoint
CREATE INDEX `vendor_bill_order` ON `vendor_bill` (`order_id`);--> statement-breakpoint
CREATE INDEX `due_on` ON `due` (`due_on`);--> statement-breakpoint
CREATE INDEX `meter_reading_asset` ON `meter_reading` (`asset_id`,`at`);