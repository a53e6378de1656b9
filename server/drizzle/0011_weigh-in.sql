CREATE TABLE `weigh_in_entries` (
	`entry_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`at_ms` bigint NOT NULL,
	`account_id` uuid NOT NULL,
	`act` json NOT NULL,
	`heard_at` datetime(3) NOT NULL,
	CONSTRAINT `weigh_in_entries_entry_id` PRIMARY KEY(`entry_id`)
);
--> statement-breakpoint
ALTER TABLE `weigh_in_entries` ADD CONSTRAINT `weigh_in_entries_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `weigh_in_entries` ADD CONSTRAINT `weigh_in_entries_account_id_accounts_account_id_fk` FOREIGN KEY (`account_id`) REFERENCES `accounts`(`account_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX `weigh_in_entries_event` ON `weigh_in_entries` (`event_id`);