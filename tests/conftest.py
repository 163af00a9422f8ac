"""Settings for all tests."""

from hypothesis import HealthCheck, settings

# The same examples in every run; machines are too noisy for deadlines.
settings.register_profile(
    "seeded",
    deadline=None,
    derandomize=True,
    max_examples=40,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.data_too_large],
)
settings.load_profile("seeded")
