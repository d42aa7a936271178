<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Comparison\SignedDifference;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\PlainNumber;
use NineTally\Core\Value\Reading;

/** Whether both cells can be read as the kind of their pair, and what was read can be compared. */
final readonly class ReadableCells
{
    /** Whether both sides read digits with a point between them as the number that they show. */
    private bool $readsPlainly;

    public function __construct(private Kind $kind, private Reading $source, private Reading $target)
    {
        $plainly = static fn(Reading $reading): bool => $reading->number('0012.50')?->canonical() === '125e-1' &&
            $reading->number('1200')?->canonical() === '12e2';
        $this->readsPlainly = $kind === Kind::Number && $plainly($source) && $plainly($target);
    }

    /** What is wrong where one of them cannot be read. */
    public function of(NormalisedPair $bare): ?CellResult
    {
        $pair = $bare->pair;
        if ($this->kind === Kind::Text || $pair->isBlankInSource() || $pair->isBlankInTarget()) {
            return null;
        }
        $source = $this->source->canRead($pair->source) || $this->source->canRead($bare->bare->source);
        $target = $this->target->canRead($pair->target) || $this->target->canRead($bare->bare->target);

        if ($source !== $target) {
            $side = $source ? 'target' : 'source';
            $isSkipped = $source ? $this->target->isSkipped($pair->target) : $this->source->isSkipped($pair->source);

            return CellResult::changed(
                Cause::of(
                    CauseId::Unreadable,
                    ['side' => $side, 'kind' => $this->kind->noun()] + ($isSkipped ? ['clock' => 'skipped'] : []),
                ),
            );
        }

        return $this->kind === Kind::DateTime ? $this->comparable($pair) : null;
    }

    /**
     * What two numbers differ by; null where the kind is another, or a value is no number.
     *
     * @param  bool  $isOneNumber  whether they are known to be the same number, written differently
     */
    public function difference(string $source, string $target, bool $isOneNumber = false): ?SignedDifference
    {
        if ($this->kind !== Kind::Number) {
            return null;
        }
        if ($isOneNumber && strlen($source) <= PlainNumber::LONGEST && strpbrk($source, '123456789') !== false) {
            return SignedDifference::nought();
        }
        [$isBlankInSource, $isBlankInTarget] = [$this->source->isBlank($source), $this->target->isBlank($target)];
        if ($this->readsPlainly && ! $isBlankInSource && ! $isBlankInTarget) {
            $difference = SignedDifference::ofPlain($source, $target);
            if ($difference !== null) {
                return $difference;
            }
        }
        $from = $isBlankInSource ? null : $this->source->number($source);
        $to = $isBlankInTarget ? null : $this->target->number($target);

        $isRead = ($from !== null || $isBlankInSource) && ($to !== null || $isBlankInTarget);

        return $isRead ? SignedDifference::between($from, $to) : null;
    }

    /** An instant and a clock time without a zone cannot be compared. */
    private function comparable(CellPair $pair): ?CellResult
    {
        $moments = $pair->moments();
        if ($moments === null || $moments[0]->isInstant() === $moments[1]->isInstant()) {
            return null;
        }

        return CellResult::changed(
            Cause::of(CauseId::Unreadable, ['side' => $moments[0]->isInstant() ? 'target' : 'source', 'clock' => 'no-zone']),
        );
    }
}
