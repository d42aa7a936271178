<?php

declare(strict_types=1);

namespace App\Http\Answers;

use App\Actions\Sign\EndSignOff;
use App\Models\ReportText;
use App\Models\SecondFactor;
use App\Models\Signature;
use App\Models\SignatureAct;
use App\Models\SigningTerms;
use App\Models\Tally;
use App\Models\User;
use App\Models\Waiver;
use App\Policies\Act;
use App\Queries\Sign\FirstPage;
use App\Signing\HeldLimits;
use App\Signing\SignedContent;
use App\Signing\SigningBlocks;
use App\Signing\SigningWords;
use App\Signing\SignOff;
use NineTally\Core\Limits\HeldLimit;

/** How far the signing of a tally is, what stands in the way, and what is asked of the person who looks. */
final readonly class SignOffAnswer
{
    public function __construct(
        private HeldLimits $limits,
        private SigningBlocks $blocks,
        private SignedContent $content,
        private FirstPage $firstPage,
    ) {}

    /**
     * @param  Tally  $tally  with {@see HeldLimits::RELATIONS} and the migration of its dataset
     * @return array<string, mixed>
     */
    public function of(Tally $tally, User $person): array
    {
        $migration = $tally->dataset->migration;
        $signOff = SignOff::of($tally);
        $limits = $this->limits->of($tally);
        $next = $signOff->next();
        $isMine = $next !== null && $next->role() === $person->roleIn($migration) && $person->can('act', [$migration, Act::Sign]);
        $newest = $tally->dataset->latestTally();
        $inRound = array_map(static fn(Signature $one): int => $one->id, $signOff->round);

        return [
            'tally' => ['id' => $tally->id, 'number' => $tally->number],
            'state' => $signOff->state->value,
            'next' => $next?->value,
            'nextRole' => $next?->role()?->label(),
            'headline' => $this->firstPage->verdict($tally, $signOff, $limits),
            'verdict' => SigningWords::limits($limits),
            'things' => $this->firstPage->things($tally, $limits),
            'texts' => array_map(
                static fn(ReportText $text): string => $text->text,
                ReportText::standing($tally->id) + array_fill_keys(ReportText::PLACES, new ReportText(['text' => ''])),
            ),
            'limits' => array_map(static fn(array $one): array => self::limit($one, $tally), $limits),
            'exceptions' => $this->limits->exceptions($tally),
            'signatures' => array_map(
                static fn(Signature $one): array => self::signature($one) + ['stands' => in_array($one->id, $inRound, true)],
                $signOff->acts,
            ),
            'blocks' => [
                ...$this->blocks->of($tally, $limits),
                ...array_filter(
                    $isMine ? $this->blocks->duties($tally, $person, $signOff) : [],
                    static fn(array $block): bool => in_array($next?->value, $block['for'], true),
                ),
            ],
            'duties' => array_intersect_key(
                SigningTerms::of($migration),
                array_flip(['needsCheck', 'maySignTwice', 'mayAcceptOwn']),
            ),
            'newerTally' => $newest !== null && $newest->number > $tally->number ? $newest->number : null,
            'mine' => [
                'act' => $isMine ? $next->value : null,
                'sentence' => $isMine ? SigningWords::of($next, $tally, $limits) : null,
                'digest' => $isMine ? hash('sha256', $this->content->of($tally, $limits)) : null,
                'needsCode' => $isMine && SecondFactor::of($person) !== null,
                'mayReturn' => EndSignOff::mayEnd($signOff, SignatureAct::Returned, $person),
                'mayWithdraw' => EndSignOff::mayEnd($signOff, SignatureAct::Withdrawn, $person),
                'mayWaive' => $person->can('act', [$migration, Act::Waive]),
                'mayWrite' => ! $signOff->isClosed() && $person->can('act', [$migration, Act::Work]),
                'maySetLimits' => $person->can('act', [$migration, Act::SetLimits]),
            ],
        ];
    }

    /** @return array<string, mixed> */
    public static function signature(Signature $signature): array
    {
        return [
            'id' => $signature->id,
            'tally' => $signature->tally_id,
            'act' => $signature->act->value,
            'person' => $signature->user->name,
            'role' => $signature->role->label(),
            'method' => $signature->method,
            'words' => $signature->words,
            'reason' => $signature->reason,
            'digest' => $signature->digest,
            'at' => $signature->created_at->toIso8601ZuluString(),
        ];
    }

    /**
     * @param  array{held: HeldLimit, scope: string, waiver: Waiver|null}  $one
     * @return array<string, mixed>
     */
    private static function limit(array $one, Tally $tally): array
    {
        ['held' => $held, 'scope' => $scope, 'waiver' => $waiver] = $one;

        return [
            'id' => $held->limit->id(),
            'figure' => $held->limit->figure->value,
            'of' => $held->limit->of,
            'words' => ucfirst($held->limit->sentence($scope)),
            'worst' => $held->worst,
            'value' => $held->value(),
            'state' => $held->state->value,
            'distance' => $held->distance(),
            'isInherited' => $held->isInherited,
            'link' => "/datasets/{$tally->dataset_id}".SigningBlocks::placeOf($held->limit->figure, $tally),
            'waiver' => $waiver === null ? null : [
                'reason' => $waiver->reason,
                'ticket' => $waiver->ticket,
                'endsOn' => $waiver->ends_on->format('Y-m-d'),
                'by' => $waiver->user->name,
                'at' => $waiver->created_at->toIso8601ZuluString(),
            ],
        ];
    }
}
