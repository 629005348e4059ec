"""Studio hours: tries of one day, what each changed, and whether that is more than a lucky one."""
