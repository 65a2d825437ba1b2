"""What pyproject.toml cannot say: a wheel holds the built front end, or is not made."""

from pathlib import Path

from setuptools import setup
from setuptools.command.build_py import build_py
from setuptools.errors import SetupError

PAGE = Path(__file__).parent / "src/finetally/web/static/app/index.html"


class BuildWithFrontEnd(build_py):
    """Refuses to build what would answer every page with an apology. A checkout builds it later, by ./tally."""

    def run(self) -> None:
        """Build, if the pages are there."""
        if not self.editable_mode and not PAGE.is_file():
            raise SetupError(f"The front end is not built: {PAGE} is missing. ./tally wheel builds both.")
        super().run()


setup(cmdclass={"build_py": BuildWithFrontEnd})
