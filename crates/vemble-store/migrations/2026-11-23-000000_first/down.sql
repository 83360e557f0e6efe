DROP TABLE readings, try_ons, garments, wearers, accounts;
