<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Advice\AdvisedKey;
use NineTally\Core\Advice\KeyAdvice;
use NineTally\Core\Advice\PairProposal;
use NineTally\Core\Advice\PairProposals;
use NineTally\Core\Advice\ValueSketch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\NineTallyException;
use NineTally\Core\Row\Row;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'advise', description: 'Proposes which columns of two deliveries pair, and which of them tell rows apart.')]
final class AdviseCommand extends Command
{
    private const SAMPLE_ROWS = 5_000;

    protected function configure(): void
    {
        $this
            ->addArgument('source', InputArgument::REQUIRED, 'The delivery of the old system')
            ->addArgument('target', InputArgument::REQUIRED, 'That of the new one')
            ->addOption('json', null, InputOption::VALUE_NONE, 'Print it as one JSON object');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $sides = ['source' => $this->side($input, 'source'), 'target' => $this->side($input, 'target')];
        } catch (NineTallyException $problem) {
            $errors = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
            $errors->writeln($problem->getMessage(), OutputInterface::OUTPUT_RAW);

            return TallyCommand::NOT_USABLE;
        }
        $pairs = (new PairProposals)->of($sides['source']['sketches'], $sides['target']['sketches']);
        $likely = array_values(array_filter($pairs, static fn(PairProposal $pair): bool => $pair->strength !== 'weak'));
        $names = array_map(static fn(PairProposal $pair): string => $pair->source, $likely);
        $keys = (new KeyAdvice)->keys($names, array_map(static fn(PairProposal $pair): array => [
            'source' => array_column($sides['source']['rows'], (int) array_search($pair->source, $sides['source']['names'], true)),
            'target' => array_column($sides['target']['rows'], (int) array_search($pair->target, $sides['target']['names'], true)),
        ], $likely));
        $named = static fn(AdvisedKey $key): array => array_map(static fn(int $place): string => $names[$place], $key->places);
        if ($input->getOption('json') === true) {
            $output->writeln(
                json_encode(
                    [
                        'pairs' => array_map(static fn(PairProposal $pair): array => $pair->toArray(), $pairs),
                        'keys' => array_map(
                            static fn(AdvisedKey $key): array => [
                                'columns' => $named($key),
                                'sample_rows' => $key->rows,
                                'repeating_rows' => $key->repeats,
                            ],
                            $keys,
                        ),
                    ],
                    JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES,
                ),
                OutputInterface::OUTPUT_RAW,
            );

            return self::SUCCESS;
        }
        foreach ($pairs as $pair) {
            $output->writeln(
                sprintf('%s: %s, %s (%s)', $pair->strength, $pair->source, $pair->target, implode(', ', $pair->reasons)),
                OutputInterface::OUTPUT_RAW,
            );
        }
        foreach ($keys as $key) {
            $output->writeln(
                sprintf(
                    'key: %s (of %s and %s sampled rows %s and %s repeat)',
                    implode(' + ', $named($key)),
                    ...array_map(number_format(...), [
                        $key->rows['source'],
                        $key->rows['target'],
                        $key->repeats['source'],
                        $key->repeats['target'],
                    ]),
                ),
                OutputInterface::OUTPUT_RAW,
            );
        }
        $keys === [] &&
            $output->writeln('No six of these columns or fewer tell the rows of both sides apart.', OutputInterface::OUTPUT_RAW);

        return self::SUCCESS;
    }

    /** @return array{names: list<string>, sketches: list<ValueSketch>, rows: list<list<string>>} with rows drawn evenly from all */
    private function side(InputInterface $input, string $name): array
    {
        $file = $input->getArgument($name);
        $reader = (new ReaderCatalogue)->open(is_string($file) ? $file : '', is_string($file) ? $file : '');

        return $this->looked($reader);
    }

    /** @return array{names: list<string>, sketches: list<ValueSketch>, rows: list<list<string>>} */
    private function looked(Reader $reader): array
    {
        $sketches = array_map(static fn(string $name): ValueSketch => new ValueSketch($name), $reader->columns()->names);
        // Rows are kept by the hash of their number, each time twice as many are left out when there are too many.
        $rows = [];
        $every = 1;
        foreach ($reader->records() as $record) {
            if (! $record instanceof Row) {
                continue;
            }
            foreach ($record->cells as $place => $cell) {
                $sketches[$place]->see($cell);
            }
            if (crc32((string) $record->line) % $every === 0) {
                $rows[$record->line] = $record->cells;
            }
            if (count($rows) > self::SAMPLE_ROWS) {
                $every *= 2;
                $rows = array_filter($rows, static fn(int $line): bool => crc32((string) $line) % $every === 0, ARRAY_FILTER_USE_KEY);
            }
        }
        array_map(static fn(ValueSketch $sketch) => $sketch->finish(), $sketches);

        return ['names' => $reader->columns()->names, 'sketches' => $sketches, 'rows' => array_values($rows)];
    }
}
