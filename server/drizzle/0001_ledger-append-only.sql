-- Against slips of hand: the chain itself finds what goes past this.
CREATE TRIGGER ledger_entries_no_update BEFORE UPDATE ON ledger_entries FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'ledger entries are never rewritten';--> statement-breakpoint
CREATE TRIGGER ledger_entries_no_delete BEFORE DELETE ON ledger_entries FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'ledger entries are never removed';--> statement-breakpoint
CREATE TRIGGER rule_sheets_no_update BEFORE UPDATE ON rule_sheets FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'a published rule sheet never changes';
