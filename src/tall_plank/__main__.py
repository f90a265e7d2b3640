from tall_plank.cli import main

main()
