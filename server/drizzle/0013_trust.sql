CREATE TABLE `catch_ids` (
	`catch_id` uuid NOT NULL,
	`event_id` uuid NOT NULL,
	`entrant_id` uuid NOT NULL,
	`heard_at` datetime(3) NOT NULL,
	CONSTRAINT `catch_ids_catch_id` PRIMARY KEY(`catch_id`)
);
--> statement-breakpoint
ALTER TABLE `ledger_entries` DROP FOREIGN KEY `ledger_entries_event_id_events_event_id_fk`;
--> statement-breakpoint
ALTER TABLE `ledgers` DROP FOREIGN KEY `ledgers_event_id_events_event_id_fk`;
--> statement-breakpoint
ALTER TABLE `commitments` DROP FOREIGN KEY `commitments_event_id_events_event_id_fk`;
--> statement-breakpoint
ALTER TABLE `accounts` ADD `suspended_at` datetime(3);--> statement-breakpoint
ALTER TABLE `event_roles` ADD `accepted_at` datetime(3);--> statement-breakpoint
ALTER TABLE `invitations` ADD `event_id` uuid;--> statement-breakpoint
ALTER TABLE `invitations` ADD `kind` varchar(12) DEFAULT 'invitation' NOT NULL;--> statement-breakpoint
ALTER TABLE `photographs` ADD `completing_at` datetime(3);--> statement-breakpoint
ALTER TABLE `ledgers` ADD `signature` varchar(86);--> statement-breakpoint
ALTER TABLE `ledgers` ADD `signed_by` varchar(32);--> statement-breakpoint
ALTER TABLE `sign_ins` ADD `sign_in_id` uuid DEFAULT (uuid()) NOT NULL;--> statement-breakpoint
ALTER TABLE `sign_ins` ADD `browser` varchar(60) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `catch_ids` ADD CONSTRAINT `catch_ids_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE `catch_ids` ADD CONSTRAINT `catch_ids_entrant_id_entrants_entrant_id_fk` FOREIGN KEY (`entrant_id`) REFERENCES `entrants`(`entrant_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
-- Roles of versions before counted as soon as they were given.
UPDATE `event_roles` r JOIN `events` e ON e.`event_id` = r.`event_id` SET r.`accepted_at` = e.`created_at`;--> statement-breakpoint
UPDATE `invitations` i JOIN `accounts` a ON a.`account_id` = i.`account_id` SET i.`event_id` = a.`invited_by_event_id`;--> statement-breakpoint
-- Addresses are compared as they are written: no accent, width or invisible letter names another's account.
ALTER TABLE `accounts` MODIFY `email` varchar(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;--> statement-breakpoint
-- Whose an id is: the claim's, else of the first that spoke of it.
INSERT IGNORE INTO `catch_ids` SELECT `catch_id`, `event_id`, `entrant_id`, `received_at` FROM `catches`;--> statement-breakpoint
INSERT IGNORE INTO `catch_ids` SELECT `catch_id`, `event_id`, `entrant_id`, `heard_at` FROM (
  SELECT `catch_id`, `event_id`, `entrant_id`, `heard_at` FROM `captures`
  UNION ALL SELECT `catch_id`, `event_id`, `entrant_id`, `heard_at` FROM `announcements`
  UNION ALL SELECT `catch_id`, `event_id`, `entrant_id`, `told_at` FROM `timings`
) heard ORDER BY `heard_at`;--> statement-breakpoint
CREATE TRIGGER well_entries_no_update BEFORE UPDATE ON well_entries FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'what was entered at a well is never changed';--> statement-breakpoint
CREATE TRIGGER weigh_in_entries_no_update BEFORE UPDATE ON weigh_in_entries FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'what was entered at the scale is never changed';--> statement-breakpoint
CREATE TRIGGER verdicts_no_update BEFORE UPDATE ON verdicts FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a verdict is never changed';
