from tall_plank.cli import main

main(prog_name="tall-plank")
