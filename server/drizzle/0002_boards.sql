CREATE TABLE `boards` (
	`event_id` uuid NOT NULL,
	`board_id` varchar(40) NOT NULL,
	`bytes` mediumblob NOT NULL,
	`sha256` binary(32) NOT NULL,
	`added_at` datetime(3) NOT NULL,
	CONSTRAINT `boards_event_id_board_id_pk` PRIMARY KEY(`event_id`,`board_id`)
);
--> statement-breakpoint
ALTER TABLE `boards` ADD CONSTRAINT `boards_event_id_events_event_id_fk` FOREIGN KEY (`event_id`) REFERENCES `events`(`event_id`) ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE TRIGGER boards_no_update BEFORE UPDATE ON boards FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a kind of board that was added never changes';
