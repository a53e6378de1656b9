CREATE TABLE `pairings` (
	`pairing_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`entrant_id` uuid NOT NULL,
	`account_id` uuid NOT NULL,
	`job` varchar(10) NOT NULL,
	`token_sha256` binary(32) NOT NULL,
	`created_at` datetime(3) NOT NULL,
	`expires_at` datetime(3) NOT NULL,
	`used_at` datetime(3),
	`ended_at` datetime(3),
	CONSTRAINT `pairings_pairing_id` PRIMARY KEY(`pairing_id`),
	CONSTRAINT `pairings_token` UNIQUE(`token_sha256`)
);
--> statement-breakpoint
CREATE TABLE `timings` (
	`catch_id` uuid NOT NULL,
	`device_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`entrant_id` uuid NOT NULL,
	`handling` json NOT NULL,
	`clock_offset_ms` bigint,
	`told_at` datetime(3) NOT NULL,
	CONSTRAINT `timings_catch_id_device_id_pk` PRIMARY KEY(`catch_id`,`device_id`)
);
--> statement-breakpoint
ALTER TABLE `device_keys` ADD `pairing_id` uuid;--> statement-breakpoint
ALTER TABLE `sign_ins` ADD `pairing_id` uuid;--> statement-breakpoint
ALTER TABLE `pairings` ADD CONSTRAINT `pairings_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `pairings` ADD CONSTRAINT `pairings_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `pairings` ADD CONSTRAINT `pairings_account_id_accounts_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `timings` ADD CONSTRAINT `timings_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `timings` ADD CONSTRAINT `timings_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `pairings_account` ON `pairings` (`account_id`);--> statement-breakpoint
ALTER TABLE `device_keys` ADD CONSTRAINT `device_keys_pairing_id_pairings_pairing_id_fk` FOREIGN KEY (`pairing_id`) REFERENCES `pairings`(`pairing_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `sign_ins` ADD CONSTRAINT `sign_ins_pairing_id_pairings_pairing_id_fk` FOREIGN KEY (`pairing_id`) REFERENCES `pairings`(`pairing_id`) ON DELETE no action ON UPDATE no action;