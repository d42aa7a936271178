<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Tally\Progress;
use NineTally\Core\Tally\ProgressReport;
use Symfony\Component\Console\Output\OutputInterface;

/** Shows how far a run is in one line of a terminal, which is taken away at the end. */
final class TerminalProgress implements Progress
{
    private const SECONDS_BETWEEN = 0.2;

    private float $shown = 0.0;

    public function __construct(private readonly OutputInterface $terminal) {}

    public function report(ProgressReport $report): void
    {
        if (microtime(true) - $this->shown < self::SECONDS_BETWEEN) {
            return;
        }
        $this->shown = microtime(true);
        $this->terminal->write(
            sprintf(
                "\r\033[K%s %d %%, %s and %s records",
                ucfirst($report->phase->value),
                (int) (100 * $report->done),
                number_format($report->rows['source']),
                number_format($report->rows['target']),
            ),
            false,
            OutputInterface::OUTPUT_RAW,
        );
    }

    public function clear(): void
    {
        if ($this->shown > 0.0) {
            $this->terminal->write("\r\033[K", false, OutputInterface::OUTPUT_RAW);
        }
    }
}
