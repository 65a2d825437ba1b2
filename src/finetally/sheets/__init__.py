"""The edge to spreadsheets: CSV and workbooks."""
