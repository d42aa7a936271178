<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use Brick\Math\BigDecimal;
use NineTally\Core\Cause\ColumnEvidence;
use NineTally\Core\Matching\ForgivenPattern;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Matching\PairCounts;
use NineTally\Core\Matching\Postings\Postings;
use NineTally\Core\Matching\ScanResult;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
use NineTally\Core\Totals\ExactSum;
use NineTally\Core\Totals\GroupFigures;
use NineTally\Core\Totals\Share;
use NineTally\Core\Totals\ShareCounts;

/**
 * What tasks have done, as files of the workspace: a task is done when its result is there. Only the classes that a result is made of are
 * brought back from a file.
 *
 * @phpstan-type MatchResult array{counts: MatchCounts, findings: array{source: bool, target: bool}, postings: array<string, array<int,
 *     array{int, int}>>}
 */
final readonly class TaskResults
{
    /** What control totals are made of. */
    private const OF_TOTALS = [GroupFigures::class, ExactSum::class, Share::class, ShareCounts::class, BigDecimal::class];

    /** What the counts of a partition are made of. */
    private const OF_MATCHING = [
        MatchCounts::class, PairCounts::class, ForgivenPattern::class, ColumnEvidence::class, BigDecimal::class,
    ];

    public function __construct(private string $workspace) {}

    public function isDone(string $task): bool
    {
        return is_file("{$this->workspace}/{$task}.result");
    }

    public function forget(string $task): void
    {
        @unlink("{$this->workspace}/{$task}.result");
    }

    public function digestOf(string $task): string
    {
        return (string) @hash_file('sha256', "{$this->workspace}/{$task}.result");
    }

    /** @param ScanResult|MatchResult $result */
    public function keep(string $task, ScanResult|array $result): void
    {
        AtomicFile::put("{$this->workspace}/{$task}.result", serialize($result));
    }

    public function ofScan(string $task): ScanResult
    {
        $result = $this->read($task, [ScanResult::class, ...self::OF_TOTALS]);

        return $result instanceof ScanResult ? $result : throw WorkspaceFailure::reading($task);
    }

    /** @return MatchResult */
    public function ofMatch(string $task): array
    {
        /** @var MatchResult $result */
        $result = $this->read($task, [...self::OF_MATCHING, ...self::OF_TOTALS]);

        return $result;
    }

    /** @param list<class-string> $classes */
    private function read(string $task, array $classes): mixed
    {
        $bytes = @file_get_contents("{$this->workspace}/{$task}.result");

        return $bytes === false ? throw WorkspaceFailure::reading($task) : unserialize($bytes, ['allowed_classes' => $classes]);
    }
}
