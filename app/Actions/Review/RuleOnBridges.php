<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Actions\Match\SaveDraft;
use App\Models\Dataset;
use App\Models\User;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Row\Side;

/**
 * Says of bridges of the draft whose key is right, or takes them back. They are named by their numbers in the list, so that nobody needs to
 * see a masked key.
 */
final readonly class RuleOnBridges
{
    public function __construct(private SaveDraft $saveDraft) {}

    /**
     * @param  list<int>  $numbers  from 1; none: all of them
     * @param  'source'|'target'|'open'|'removed'  $decision
     * @param  int  $seen  the number of the draft that the person saw
     * @return int the number of the draft
     *
     * @throws \App\Problems\DraftChanged when somebody else has saved another since
     */
    public function __invoke(Dataset $dataset, array $numbers, string $decision, User $person, int $seen): int
    {
        $draft = $dataset->draft()->firstOrFail();
        $named = array_fill_keys($numbers, true);
        $bridges = [];
        foreach (Bridges::fromDocument($draft->document)->confirmed as $place => $bridge) {
            $isMeant = $numbers === [] || isset($named[$place + 1]);
            if (! $isMeant || $decision !== 'removed') {
                $bridges[] = ($isMeant ? $bridge->withRight(Side::tryFrom($decision)) : $bridge)->toArray();
            }
        }

        return ($this->saveDraft)(
            $dataset,
            array_filter(['bridges' => $bridges]) + array_diff_key($draft->document, ['bridges' => true]),
            $person,
            $seen,
        )->number;
    }
}
