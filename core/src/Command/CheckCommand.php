<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Seal\CheckedPack;
use NineTally\Core\Seal\PackCheck;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

/** Ends with 0 where all of a pack fits, with 1 where something does not, and with 2 where there is no such file. */
#[
    AsCommand(
        name: 'check',
        description: 'Checks an evidence pack against its manifests and its seal: check PACK [--key=FINGERPRINT] [--again]',
    ),
]
final class CheckCommand extends Command
{
    private const MARKS = ['fits' => 'fits      ', 'differs' => 'DIFFERS   ', 'unknown' => 'not known '];

    protected function configure(): void
    {
        $this->addArgument('pack', InputArgument::REQUIRED, 'The pack, a zip')
            ->addOption(
                'key',
                null,
                InputOption::VALUE_REQUIRED,
                'The fingerprint of the key that you know to be right: 64 hexadecimal digits',
            )
            ->addOption('again', null, InputOption::VALUE_NONE, 'Computes the tally once more from the deliveries, where the pack has them')
            ->addOption('json', null, InputOption::VALUE_NONE, 'What was found as JSON');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$path, $key] = [$input->getArgument('pack'), $input->getOption('key')];
        $path = is_string($path) ? $path : '';
        if (! is_file($path)) {
            $output->writeln("There is no file \"{$path}\". Name the pack as it was taken away.", OutputInterface::OUTPUT_RAW);

            return TallyCommand::NOT_USABLE;
        }
        $checked = PackCheck::of($path, is_string($key) ? $key : null);
        if ($input->getOption('again') === true && $checked->fits()) {
            $checked = new CheckedPack([...$checked->lines, ...ComputedAgain::of($path)], $checked->fingerprint);
        }
        if ($input->getOption('json') === true) {
            $output->writeln(
                json_encode(
                    ['fits' => $checked->fits(), 'key' => $checked->fingerprint, 'found' => $checked->lines],
                    JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_THROW_ON_ERROR,
                ),
                OutputInterface::OUTPUT_RAW,
            );

            return $checked->fits() ? self::SUCCESS : self::FAILURE;
        }
        foreach ($checked->lines as $line) {
            $output->writeln(
                self::MARKS[$line->state].($line->about === '' ? '' : "{$line->about}: ").$line->words,
                OutputInterface::OUTPUT_RAW,
            );
        }
        $output->writeln($checked->fits() ? 'The pack fits.' : 'The pack does not fit.');

        return $checked->fits() ? self::SUCCESS : self::FAILURE;
    }
}
