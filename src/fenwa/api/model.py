"""The ground of everything that is sent and answered as JSON."""

from pydantic import BaseModel, ConfigDict


class Model(BaseModel):
    """What is sent or answered; what checks it is built when it is first needed: built together the three hundred
    took a fifth of the start.
    """

    model_config = ConfigDict(defer_build=True)

    @classmethod
    def __pydantic_on_complete__(cls) -> None:
        cls.model_config["defer_build"] = False  # FastAPI wants to know that what it is given can be used at once
