<?php

declare(strict_types=1);

namespace App\Signing;

use App\Adapters\Database\DatabaseRow;
use App\Models\Delivery;
use App\Models\EyeCheck;
use App\Models\RecordCheck;
use App\Models\ReportText;
use App\Models\Signature;
use App\Models\SigningTerms;
use App\Models\Tally;
use App\Models\TallyTotal;
use App\Models\Waiver;
use App\Queries\Prove\EyeCheckResult;
use Illuminate\Database\Connection;
use NineTally\Core\Limits\HeldLimit;
use NineTally\Core\Plan\CanonicalJson;

/**
 * What somebody signs, as one document: figures, limits, waivers, digests of the rulings that stand and of what was proved. In canonical
 * form (RFC 8785), so that whoever has the document can take its digest again.
 */
final readonly class SignedContent
{
    private const FORMAT = 1;

    public function __construct(private Connection $database, private HeldLimits $limits) {}

    /**
     * @param  Tally  $tally  with {@see HeldLimits::RELATIONS}
     * @param  list<array{held: HeldLimit, scope: string, waiver: Waiver|null}>  $limits  of the tally
     */
    public function of(Tally $tally, array $limits): string
    {
        $terms = SigningTerms::of($tally->dataset->migration);

        return CanonicalJson::of([
            'format' => self::FORMAT,
            'migration' => $tally->dataset->migration->name,
            'dataset' => $tally->dataset->name,
            'tally' => ['number' => $tally->number, 'finishedAt' => $tally->finished_at->toIso8601ZuluString()],
            'plan' => ['version' => $tally->planVersion->number, 'digest' => $tally->planVersion->digest],
            'deliveries' => ['source' => self::delivery($tally->sourceDelivery), 'target' => self::delivery($tally->targetDelivery)],
            'engine' => $tally->summary['engine'],
            'figures' => [
                'rows' => $tally->summary['rows'],
                'cells' => $tally->summary['cells'],
                'values' => $tally->summary['values'] ?? null,
            ],
            'limits' => array_map(self::limit(...), $limits),
            'exceptions' => $this->limits->exceptions($tally),
            'rulings' => [
                'findings' => self::counts($tally),
                'digest' => $this->rulings($tally),
            ],
            'proofs' => self::proofs($tally),
            'texts' => array_map(static fn(ReportText $text): string => $text->text, ReportText::standing($tally->id)),
            'duties' => [
                'needsCheck' => $terms['needsCheck'],
                'maySignTwice' => $terms['maySignTwice'],
                'mayAcceptOwn' => $terms['mayAcceptOwn'],
            ],
            'signatures' => array_map(self::signature(...), SignOff::of($tally)->round),
        ]);
    }

    /** @return array{findings: int, expected: int, defect: int, ask: int, open: int} */
    public static function counts(Tally $tally): array
    {
        $counts = ['findings' => 0, 'expected' => 0, 'defect' => 0, 'ask' => 0, 'open' => 0];
        foreach ($tally->standingCounts as $count) {
            $counts['findings'] += $count->findings;
            $counts['expected'] += $count->expected;
            $counts['defect'] += $count->defect;
            $counts['ask'] += $count->ask;
            $counts['open'] += $count->open();
        }

        return $counts;
    }

    /** The acts that stand on the tally, in their order, each with all that it says and how many findings it stands on. */
    private function rulings(Tally $tally): string
    {
        $acts = DatabaseRow::all($this->database, <<<'SQL'
            SELECT a.id, a.decision, a.reason, a.ticket, a.user_id, s.findings,
                to_char(a.created_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at
            FROM standing_acts s JOIN rulings a ON a.id = s.ruling_id
            WHERE s.tally_id = ? AND s.findings > 0
            ORDER BY a.id
            SQL, [$tally->id]);

        return hash('sha256', CanonicalJson::of(array_map(static fn(DatabaseRow $act): array => [
            $act->int('id'), $act->text('decision'), $act->text('reason'), $act->textOrNull('ticket'), $act->int('user_id'),
            $act->int('findings'), $act->text('at'),
        ], $acts)));
    }

    /** @return array{totals: string, references: string, eyeChecks: string} */
    private static function proofs(Tally $tally): array
    {
        $digest = static fn(array $figures): string => hash('sha256', CanonicalJson::of(array_values($figures)));

        return [
            'totals' => $digest($tally->totals->map(static fn(TallyTotal $total): array => $total->figures)->all()),
            'references' => $digest($tally->recordChecks->map(static fn(RecordCheck $check): array => $check->figures)->all()),
            'eyeChecks' => $digest($tally->eyeChecks->map(static fn(EyeCheck $check): array => [
                $check->id,
                $check->seed,
                array_map(
                    static fn(array $of): array => [$of['rows'], $of['population'], $of['right'], $of['wrong'], $of['unclear']],
                    EyeCheckResult::of($check)->strata,
                ),
            ])->all()),
        ];
    }

    /** @return array{number: int, digest: string, rows: int} */
    private static function delivery(Delivery $delivery): array
    {
        return ['number' => $delivery->number, 'digest' => $delivery->digest, 'rows' => $delivery->delivered_count];
    }

    /**
     * @param  array{held: HeldLimit, scope: string, waiver: Waiver|null}  $limit
     * @return array<string, mixed>
     */
    private static function limit(array $limit): array
    {
        ['held' => $held, 'scope' => $scope, 'waiver' => $waiver] = $limit;

        return [
            ...$held->limit->toArray(),
            'words' => $held->limit->sentence($scope),
            'value' => $held->measured->isHidden ? null : $held->measured->exact(),
            'shown' => $held->value(),
            'state' => $held->state->value,
            'isInherited' => $held->isInherited,
            'waiver' => $waiver === null ? null : [
                'reason' => $waiver->reason,
                'ticket' => $waiver->ticket,
                'endsOn' => $waiver->ends_on->format('Y-m-d'),
                'by' => $waiver->user->name,
                'at' => $waiver->created_at->toIso8601ZuluString(),
            ],
        ];
    }

    /** @return array<string, mixed> */
    private static function signature(Signature $signature): array
    {
        return [
            'act' => $signature->act->value,
            'person' => $signature->user->name,
            'role' => $signature->role->value,
            'method' => $signature->method,
            'words' => $signature->words,
            'at' => $signature->created_at->toIso8601ZuluString(),
            'digest' => $signature->digest,
        ];
    }
}
