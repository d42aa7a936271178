<?php

declare(strict_types=1);

namespace App\Signing;

use App\Models\Signature;
use App\Models\SignatureAct;
use App\Models\SigningTerms;
use App\Models\Tally;
use App\Problems\Conflict;

/**
 * The signatures on a tally: prepared, checked (where that is asked for), accepted. Who returns or withdraws ends the round, and the next
 * begins anew; nothing of the old one is lost.
 */
final readonly class SignOff
{
    /**
     * @param  list<Signature>  $acts  all of the tally
     * @param  list<Signature>  $round  those that stand
     */
    private function __construct(
        public Tally $tally,
        public array $acts,
        public array $round,
        public SignOffState $state,
        private bool $needsCheck,
    ) {}

    /** @param Tally $tally with its signatures, and the migration's id at hand */
    public static function of(Tally $tally): self
    {
        $acts = array_values($tally->signatures->all());
        $round = [];
        foreach ($acts as $act) {
            $round = $act->act->role() === null ? [] : [...$round, $act];
        }
        $last = end($acts);
        $state = $last === false ? SignOffState::None : SignOffState::from($last->act->value);
        $isOpen = in_array($state, [SignOffState::Prepared, SignOffState::Checked], true);

        return new self(
            $tally,
            $acts,
            $round,
            $isOpen && self::isOvertaken($tally) ? SignOffState::Overtaken : $state,
            SigningTerms::of($tally->dataset->migration)['needsCheck'],
        );
    }

    /** Whose signature is asked for; null where all are given, or none can be. */
    public function next(): ?SignatureAct
    {
        return match ($this->state) {
            SignOffState::None, SignOffState::Returned, SignOffState::Withdrawn => SignatureAct::Prepared,
            SignOffState::Prepared => $this->needsCheck ? SignatureAct::Checked : SignatureAct::Accepted,
            SignOffState::Checked => SignatureAct::Accepted,
            SignOffState::Accepted, SignOffState::Overtaken => null,
        };
    }

    public function isOpen(): bool
    {
        return $this->state === SignOffState::Prepared || $this->state === SignOffState::Checked;
    }

    /** Whether rulings on the tally are closed: somebody has signed what they are. */
    public function isClosed(): bool
    {
        return $this->isOpen() || $this->state === SignOffState::Accepted;
    }

    /** How many signatures there are when all are given. */
    public function asked(): int
    {
        return $this->needsCheck ? 3 : 2;
    }

    /**
     * Nobody rules on what somebody has signed.
     *
     * @throws Conflict
     */
    public static function mustNotLock(Tally $tally): void
    {
        $signOff = self::of($tally->load(['signatures.user', 'dataset.migration']));
        if ($signOff->isClosed()) {
            $last = $signOff->acts[count($signOff->acts) - 1];
            throw Conflict::because('signed', sprintf(
                '%s signed tally %d ("%s") on %s, so rulings on it are closed. %s',
                $last->user->name,
                $tally->number,
                $last->act->value,
                $last->created_at->format('j M Y'),
                $signOff->isOpen()
                    ? 'Have the sign-off withdrawn or returned on the page Sign, then rule.'
                    : 'Tally again: what you rule there is of the new tally, and what was signed stays as it was.',
            ));
        }
    }

    private static function isOvertaken(Tally $tally): bool
    {
        return Signature::query()
            ->whereIn(
                'tally_id',
                Tally::query()->where('dataset_id', $tally->dataset_id)->where('number', '>', $tally->number)->select('id'),
            )
            ->exists();
    }
}
