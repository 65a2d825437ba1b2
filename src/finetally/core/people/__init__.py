"""What is known about people: maxima and capacity from tests, limits and the options they choose, lists, teams."""
