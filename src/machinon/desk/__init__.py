"""The desktop application: windows, views, presenters and painters."""
