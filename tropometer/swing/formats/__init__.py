"""The edge of the core: documents and files, in and out, one file a format."""
