CREATE TABLE `accounts` (
	`account_id` uuid NOT NULL,
	`name` varchar(80) NOT NULL,
	`email` varchar(120) NOT NULL,
	`password_hash` varchar(200),
	`founder` boolean NOT NULL DEFAULT false,
	`invited_by_event_id` uuid,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `accounts_account_id` PRIMARY KEY(`account_id`),
	CONSTRAINT `accounts_email` UNIQUE(`email`)
);
--> statement-breakpoint
CREATE TABLE `answers` (
	`answer_id` uuid NOT NULL,
	`catch_id` uuid NOT NULL,
	`verdict_id` uuid NOT NULL,
	`answered_at` datetime(3) NOT NULL,
	`words` varchar(500) NOT NULL,
	`photograph_id` uuid,
	CONSTRAINT `answers_answer_id` PRIMARY KEY(`answer_id`)
);
--> statement-breakpoint
CREATE TABLE `catch_photographs` (
	`catch_id` uuid NOT NULL,
	`photograph_id` uuid NOT NULL,
	`seq` smallint NOT NULL,
	`role` varchar(10) NOT NULL,
	CONSTRAINT `catch_photographs_catch_id_seq_pk` PRIMARY KEY(`catch_id`,`seq`),
	CONSTRAINT `catch_photographs_photograph` UNIQUE(`photograph_id`)
);
--> statement-breakpoint
CREATE TABLE `catches` (
	`catch_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`entrant_id` uuid NOT NULL,
	`species_id` varchar(40) NOT NULL,
	`day_id` uuid NOT NULL,
	`rule_version` int NOT NULL,
	`captured_at` datetime(3) NOT NULL,
	`captured_source` varchar(12) NOT NULL,
	`made_at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`device_id` uuid NOT NULL,
	`in_session` boolean NOT NULL,
	`marks` json NOT NULL,
	`claimed_steps` int NOT NULL,
	`measurement_id` uuid NOT NULL,
	`identifier_code` varchar(12),
	`withdrawn_at` datetime(3),
	`state` varchar(12) NOT NULL,
	CONSTRAINT `catches_catch_id` PRIMARY KEY(`catch_id`)
);
--> statement-breakpoint
CREATE TABLE `commitments` (
	`event_id` uuid NOT NULL,
	`seq` int NOT NULL,
	`label` varchar(60) NOT NULL,
	`salt` varchar(64),
	`value` text,
	CONSTRAINT `commitments_event_id_seq_label_pk` PRIMARY KEY(`event_id`,`seq`,`label`)
);
--> statement-breakpoint
CREATE TABLE `entrant_members` (
	`entrant_id` uuid NOT NULL,
	`account_id` uuid NOT NULL,
	CONSTRAINT `entrant_members_entrant_id_account_id_pk` PRIMARY KEY(`entrant_id`,`account_id`)
);
--> statement-breakpoint
CREATE TABLE `entrants` (
	`entrant_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`number` int NOT NULL,
	CONSTRAINT `entrants_entrant_id` PRIMARY KEY(`entrant_id`),
	CONSTRAINT `entrants_number` UNIQUE(`event_id`,`number`)
);
--> statement-breakpoint
CREATE TABLE `event_days` (
	`day_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`seq` smallint NOT NULL,
	`date` varchar(10) NOT NULL,
	CONSTRAINT `event_days_day_id` PRIMARY KEY(`day_id`),
	CONSTRAINT `event_days_seq` UNIQUE(`event_id`,`seq`)
);
--> statement-breakpoint
CREATE TABLE `event_roles` (
	`event_id` uuid NOT NULL,
	`account_id` uuid NOT NULL,
	`role` varchar(20) NOT NULL,
	CONSTRAINT `event_roles_event_id_account_id_role_pk` PRIMARY KEY(`event_id`,`account_id`,`role`)
);
--> statement-breakpoint
CREATE TABLE `event_sessions` (
	`session_id` uuid NOT NULL,
	`day_id` uuid NOT NULL,
	`seq` smallint NOT NULL,
	`lines_in_local` varchar(16) NOT NULL,
	`lines_out_local` varchar(16) NOT NULL,
	`lines_in_at` datetime(3) NOT NULL,
	`lines_out_at` datetime(3) NOT NULL,
	CONSTRAINT `event_sessions_session_id` PRIMARY KEY(`session_id`),
	CONSTRAINT `event_sessions_seq` UNIQUE(`day_id`,`seq`)
);
--> statement-breakpoint
CREATE TABLE `events` (
	`event_id` uuid NOT NULL,
	`name` varchar(80) NOT NULL,
	`zone` varchar(60) NOT NULL,
	`is_public` boolean NOT NULL,
	`event_code` varchar(12) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `events_event_id` PRIMARY KEY(`event_id`)
);
--> statement-breakpoint
CREATE TABLE `identifiers` (
	`entrant_id` uuid NOT NULL,
	`day_id` uuid NOT NULL,
	`code` varchar(12) NOT NULL,
	CONSTRAINT `identifiers_entrant_id_day_id_pk` PRIMARY KEY(`entrant_id`,`day_id`),
	CONSTRAINT `identifiers_code` UNIQUE(`day_id`,`code`)
);
--> statement-breakpoint
CREATE TABLE `invitations` (
	`token_sha256` binary(32) NOT NULL,
	`account_id` uuid NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`used_at` datetime(3),
	CONSTRAINT `invitations_token_sha256` PRIMARY KEY(`token_sha256`)
);
--> statement-breakpoint
CREATE TABLE `ledger_entries` (
	`event_id` uuid NOT NULL,
	`seq` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	`hash` binary(32) NOT NULL,
	CONSTRAINT `ledger_entries_event_id_seq_pk` PRIMARY KEY(`event_id`,`seq`)
);
--> statement-breakpoint
CREATE TABLE `ledgers` (
	`event_id` uuid NOT NULL,
	`seq` int NOT NULL,
	`hash` binary(32) NOT NULL,
	CONSTRAINT `ledgers_event_id` PRIMARY KEY(`event_id`)
);
--> statement-breakpoint
CREATE TABLE `measurements` (
	`measurement_id` uuid NOT NULL,
	`catch_id` uuid NOT NULL,
	`kind` varchar(12) NOT NULL,
	`photograph_id` uuid,
	`reading` json NOT NULL,
	CONSTRAINT `measurements_measurement_id` PRIMARY KEY(`measurement_id`)
);
--> statement-breakpoint
CREATE TABLE `photograph_chunks` (
	`photograph_id` uuid NOT NULL,
	`seq` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	CONSTRAINT `photograph_chunks_photograph_id_seq_pk` PRIMARY KEY(`photograph_id`,`seq`)
);
--> statement-breakpoint
CREATE TABLE `photograph_copies` (
	`photograph_id` uuid NOT NULL,
	`variant` varchar(10) NOT NULL,
	`bytes` mediumblob NOT NULL,
	`sha256` binary(32) NOT NULL,
	CONSTRAINT `photograph_copies_photograph_id_variant_pk` PRIMARY KEY(`photograph_id`,`variant`)
);
--> statement-breakpoint
CREATE TABLE `photographs` (
	`photograph_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`account_id` uuid NOT NULL,
	`sha256` binary(32) NOT NULL,
	`byte_length` int NOT NULL,
	`chunk_bytes` int NOT NULL,
	`declared_at` datetime(3) NOT NULL,
	`completed_at` datetime(3),
	`width_px` int,
	`height_px` int,
	`exif` json,
	CONSTRAINT `photographs_photograph_id` PRIMARY KEY(`photograph_id`)
);
--> statement-breakpoint
CREATE TABLE `receipts` (
	`account_id` uuid NOT NULL,
	`idempotency_key` varchar(100) NOT NULL,
	`body_sha256` binary(32) NOT NULL,
	`receipt` json NOT NULL,
	`created_at` datetime(3) NOT NULL,
	CONSTRAINT `receipts_account_id_idempotency_key_pk` PRIMARY KEY(`account_id`,`idempotency_key`)
);
--> statement-breakpoint
CREATE TABLE `rule_sheets` (
	`event_id` uuid NOT NULL,
	`version` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	`sha256` binary(32) NOT NULL,
	`published_at` datetime(3) NOT NULL,
	CONSTRAINT `rule_sheets_event_id_version_pk` PRIMARY KEY(`event_id`,`version`)
);
--> statement-breakpoint
CREATE TABLE `settings` (
	`name` varchar(60) NOT NULL,
	`value` text NOT NULL,
	CONSTRAINT `settings_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
CREATE TABLE `sign_ins` (
	`token_sha256` binary(32) NOT NULL,
	`account_id` uuid NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	CONSTRAINT `sign_ins_token_sha256` PRIMARY KEY(`token_sha256`)
);
--> statement-breakpoint
CREATE TABLE `verdicts` (
	`verdict_id` uuid NOT NULL,
	`catch_id` uuid NOT NULL,
	`seq` smallint NOT NULL,
	`judge_id` uuid NOT NULL,
	`decided_at` datetime(3) NOT NULL,
	`decision` json NOT NULL,
	CONSTRAINT `verdicts_verdict_id` PRIMARY KEY(`verdict_id`),
	CONSTRAINT `verdicts_seq` UNIQUE(`catch_id`,`seq`)
);
--> statement-breakpoint
ALTER TABLE `answers` ADD CONSTRAINT `answers_catch_id_catches_catch_id_fk` FOREIGN KEY (`catch_id`) REFERENCES `catches`(`catch_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `answers` ADD CONSTRAINT `answers_verdict_id_verdicts_verdict_id_fk` FOREIGN KEY (`verdict_id`) REFERENCES `verdicts`(`verdict_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `answers` ADD CONSTRAINT `answers_photograph_id_photographs_photograph_id_fk` FOREIGN KEY (`photograph_id`) REFERENCES `photographs`(`photograph_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `catch_photographs` ADD CONSTRAINT `catch_photographs_catch_id_catches_catch_id_fk` FOREIGN KEY (`catch_id`) REFERENCES `catches`(`catch_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `catch_photographs` ADD CONSTRAINT `catch_photographs_photograph_id_photographs_photograph_id_fk` FOREIGN KEY (`photograph_id`) REFERENCES `photographs`(`photograph_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `catches` ADD CONSTRAINT `catches_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `catches` ADD CONSTRAINT `catches_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `catches` ADD CONSTRAINT `catches_day_id_event_days_day_id_fk` FOREIGN KEY (`day_id`) REFERENCES `event_days`(`day_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `commitments` ADD CONSTRAINT `commitments_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entrant_members` ADD CONSTRAINT `entrant_members_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entrant_members` ADD CONSTRAINT `entrant_members_account_id_accounts_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `entrants` ADD CONSTRAINT `entrants_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event_days` ADD CONSTRAINT `event_days_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event_roles` ADD CONSTRAINT `event_roles_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event_roles` ADD CONSTRAINT `event_roles_account_id_accounts_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `event_sessions` ADD CONSTRAINT `event_sessions_day_id_event_days_day_id_fk` FOREIGN KEY (`day_id`) REFERENCES `event_days`(`day_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `identifiers` ADD CONSTRAINT `identifiers_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `identifiers` ADD CONSTRAINT `identifiers_day_id_event_days_day_id_fk` FOREIGN KEY (`day_id`) REFERENCES `event_days`(`day_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `invitations` ADD CONSTRAINT `invitations_account_id_accounts_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `ledger_entries` ADD CONSTRAINT `ledger_entries_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `ledgers` ADD CONSTRAINT `ledgers_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `measurements` ADD CONSTRAINT `measurements_catch_id_catches_catch_id_fk` FOREIGN KEY (`catch_id`) REFERENCES `catches`(`catch_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `measurements` ADD CONSTRAINT `measurements_photograph_id_photographs_photograph_id_fk` FOREIGN KEY (`photograph_id`) REFERENCES `photographs`(`photograph_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photograph_chunks` ADD CONSTRAINT `photograph_chunks_photograph` FOREIGN KEY (`photograph_id`) REFERENCES `photographs`(`photograph_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photograph_copies` ADD CONSTRAINT `photograph_copies_photograph` FOREIGN KEY (`photograph_id`) REFERENCES `photographs`(`photograph_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photographs` ADD CONSTRAINT `photographs_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `photographs` ADD CONSTRAINT `photographs_account_id_accounts_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `rule_sheets` ADD CONSTRAINT `rule_sheets_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sign_ins` ADD CONSTRAINT `sign_ins_account_id_accounts_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `verdicts` ADD CONSTRAINT `verdicts_catch_id_catches_catch_id_fk` FOREIGN KEY (`catch_id`) REFERENCES `catches`(`catch_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `verdicts` ADD CONSTRAINT `verdicts_judge_id_accounts_account_id_fk` FOREIGN KEY (`judge_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `answers_catch` ON `answers` (`catch_id`);--> statement-breakpoint
CREATE INDEX `catches_event` ON `catches` (`event_id`,`captured_at`);--> statement-breakpoint
CREATE INDEX `catches_state` ON `catches` (`event_id`,`state`,`received_at`);--> statement-breakpoint
CREATE INDEX `catches_entrant` ON `catches` (`entrant_id`,`captured_at`);--> statement-breakpoint
CREATE INDEX `entrant_members_account` ON `entrant_members` (`account_id`);--> statement-breakpoint
CREATE INDEX `event_roles_account` ON `event_roles` (`account_id`);--> statement-breakpoint
CREATE INDEX `measurements_catch` ON `measurements` (`catch_id`);--> statement-breakpoint
CREATE INDEX `photographs_sha256` ON `photographs` (`event_id`,`sha256`);--> statement-breakpoint
CREATE INDEX `sign_ins_account` ON `sign_ins` (`account_id`);