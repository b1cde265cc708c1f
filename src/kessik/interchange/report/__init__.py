"""Reports: one document, written as a page of its own, as a PDF, or as a picture."""
