<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\RowSets\KeyMeeting;
use NineTally\Core\Matching\RowSets\RowMultiset;

/** Counts how the rows of both sides meet under one form of their keys. Memory is bounded: many keys are put into files. */
final readonly class KeyLadderCount
{
    private RowMultiset $sourceRows;

    private RowMultiset $targetRows;

    public function __construct(private LadderForm $source, private LadderForm $target, string $folder)
    {
        $this->sourceRows = new RowMultiset($folder);
        $this->targetRows = new RowMultiset($folder);
    }

    /**
     * @param  'source'|'target'  $side
     * @param  list<string>  $key
     */
    public function see(string $side, array $key): void
    {
        $canonical = ($side === 'source' ? $this->source : $this->target)->canonical($key);
        // Without a value in any column there is no key that could meet one.
        trim($canonical, Batch::CELL_END) === '' || ($side === 'source' ? $this->sourceRows : $this->targetRows)->add([$canonical]);
    }

    public function meeting(): KeyMeeting
    {
        return $this->sourceRows->meeting($this->targetRows);
    }

    public function remove(): void
    {
        $this->sourceRows->remove();
        $this->targetRows->remove();
    }
}
