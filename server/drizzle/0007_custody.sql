CREATE TABLE `announcements` (
	`catch_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`entrant_id` uuid NOT NULL,
	`body` json NOT NULL,
	`heard_at` datetime(3) NOT NULL,
	CONSTRAINT `announcements_catch_id` PRIMARY KEY(`catch_id`)
);
--> statement-breakpoint
CREATE TABLE `captures` (
	`hash` binary(32) NOT NULL,
	`event_id` uuid NOT NULL,
	`entrant_id` uuid NOT NULL,
	`catch_id` uuid NOT NULL,
	`capture_id` uuid NOT NULL,
	`statement` json NOT NULL,
	`signature` varchar(86) NOT NULL,
	`heard_at` datetime(3) NOT NULL,
	`asked_at` datetime(3),
	`answered_at` datetime(3),
	`sent_photograph_id` uuid,
	CONSTRAINT `captures_hash` PRIMARY KEY(`hash`)
);
--> statement-breakpoint
CREATE TABLE `device_keys` (
	`key_id` binary(32) NOT NULL,
	`account_id` uuid NOT NULL,
	`device_id` uuid NOT NULL,
	`public_key` json NOT NULL,
	`registered_at` datetime(3) NOT NULL,
	`revoked_at` datetime(3),
	`revoked_why` varchar(12),
	CONSTRAINT `device_keys_key_id` PRIMARY KEY(`key_id`)
);
--> statement-breakpoint
CREATE TABLE `waters` (
	`event_id` uuid NOT NULL,
	`version` int NOT NULL,
	`bytes` mediumblob NOT NULL,
	`sha256` binary(32) NOT NULL,
	`published_at` datetime(3) NOT NULL,
	CONSTRAINT `waters_event_id_version_pk` PRIMARY KEY(`event_id`,`version`)
);
--> statement-breakpoint
ALTER TABLE `announcements` ADD CONSTRAINT `announcements_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `announcements` ADD CONSTRAINT `announcements_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `captures` ADD CONSTRAINT `captures_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `captures` ADD CONSTRAINT `captures_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `device_keys` ADD CONSTRAINT `device_keys_account_id_accounts_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `waters` ADD CONSTRAINT `waters_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `announcements_event` ON `announcements` (`event_id`);--> statement-breakpoint
CREATE INDEX `captures_entrant` ON `captures` (`entrant_id`);--> statement-breakpoint
CREATE INDEX `captures_catch` ON `captures` (`catch_id`);--> statement-breakpoint
CREATE INDEX `captures_capture` ON `captures` (`capture_id`);--> statement-breakpoint
CREATE INDEX `device_keys_account` ON `device_keys` (`account_id`);