<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Cause\CauseId;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'causes', description: 'Lists the causes that can be named, in the order in which they are tried.')]
final class CausesCommand extends Command
{
    protected function configure(): void
    {
        $this->addOption('json', null, InputOption::VALUE_NONE, 'Print them as JSON');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $causes = array_map(
            static fn(CauseId $id): array => [
                'id' => $id->value,
                'meaning' => $id->meaning(),
                'can_be_forgiven' => $id->isOfForm(),
                'of_whole_column' => $id->isOfWholeColumn(),
            ],
            CauseId::cases(),
        );
        if ($input->getOption('json') === true) {
            $output->writeln(json_encode($causes, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        foreach ($causes as $cause) {
            $output->writeln(
                sprintf('%-14s %s%s', $cause['id'], $cause['meaning'], $cause['can_be_forgiven'] ? '; only the form differs' : ''),
                OutputInterface::OUTPUT_RAW,
            );
        }

        return self::SUCCESS;
    }
}
