"""Nothing lost: backup, restore, check, tidying, and one archive of all that is a person's."""
