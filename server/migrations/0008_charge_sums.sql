ALTER TABLE `charge` DROP INDEX `charge_statement`, ADD INDEX `charge_statement` (`payer_id`,`month`,`net_minor`);
