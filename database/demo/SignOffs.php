<?php

declare(strict_types=1);

namespace Database\Demo;

use App\Actions\Sign\SignTallies;
use App\Actions\Sign\WaiveLimit;
use App\Models\Dataset;
use App\Models\Decision;
use App\Models\Migration;
use App\Models\RulingScope;
use App\Models\SigningTerms;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\User;
use App\Rulings\GroupKind;
use App\Rulings\NewRuling;
use App\Rulings\RuleOn;
use App\Signing\HeldLimits;
use App\Signing\SignedContent;

/**
 * How far the demo is signed: Agents to the third signature, with a waiver; Vessels waits for the data owner; Moorings is blocked by what
 * its limits say. All by the same actions as people take.
 */
final readonly class SignOffs
{
    /** What is good enough at Wherrymoor Navigation. */
    private const LIMITS = [
        ['figure' => 'values-right', 'worst' => '98'],
        ['figure' => 'rows-missing', 'worst' => '0'],
        ['figure' => 'rows-extra', 'worst' => '5'],
        ['figure' => 'findings-open', 'worst' => '0'],
        ['figure' => 'extract-gap', 'worst' => '12'],
    ];

    /** So long an agent's register may lack its last entry. */
    private const WAIVED_UNTIL = '2027-03-31';

    /** What the trust says about what differs, and about what is missing. */
    private const REASONS = [
        'pattern' => 'as the new register writes it; agreed with the harbour office',
        'class' => 'the agent gave up in spring; the register is closed',
    ];

    public function __construct(
        private RuleOn $ruleOn,
        private SignTallies $sign,
        private WaiveLimit $waive,
        private SignedContent $content,
        private HeldLimits $limits,
    ) {}

    public function terms(Migration $migration, User $manager): void
    {
        if (SigningTerms::query()->where('migration_id', $migration->id)->doesntExist()) {
            SigningTerms::query()->create([
                'migration_id' => $migration->id,
                'terms' => ['limits' => self::LIMITS] + SigningTerms::FIRST,
                'user_id' => $manager->id,
            ]);
        }
    }

    /** @param array<'analyst'|'manager'|'owner', array{User, \Closure(): string}> $people each with what tells the password */
    public function __invoke(Migration $migration, array $people): void
    {
        foreach (['Agents' => ['analyst', 'manager', 'owner'], 'Vessels' => ['analyst', 'manager']] as $name => $signing) {
            $dataset = $migration->datasets()->where('name', $name)->firstOrFail();
            $tally = $dataset->latestTally();
            if ($tally === null || $tally->signatures()->exists()) {
                continue;
            }
            $this->rule($tally, $people['analyst'][0]);
            foreach ($signing as $who) {
                [$person, $password] = $people[$who];
                if ($who === 'owner') {
                    ($this->waive)($this->fresh($dataset), 'rows-missing', self::REASONS['class'], self::WAIVED_UNTIL, 'WH-31', $person);
                }
                $shown = $this->fresh($dataset);
                $seen = [$tally->id => hash('sha256', $this->content->of($shown, $this->limits->of($shown)))];
                ($this->sign)($migration, $seen, $person, $password(), '');
            }
        }
    }

    private function rule(Tally $tally, User $analyst): void
    {
        foreach (StandingCount::query()->where('tally_id', $tally->id)->orderBy('group')->get() as $count) {
            $group = $count->group();
            $scope = $group->kind === GroupKind::Pattern ? RulingScope::Pattern : RulingScope::RowClass;
            $reason = self::REASONS[$scope === RulingScope::Pattern ? 'pattern' : 'class'];
            ($this->ruleOn)(
                $tally,
                new NewRuling($scope, $group->value, null, Decision::Expected, $reason, 'WH-27'),
                PHP_INT_MAX,
                $analyst,
            );
        }
    }

    private function fresh(Dataset $dataset): Tally
    {
        return $dataset->latestTally()?->load(HeldLimits::RELATIONS) ?? throw new \LogicException('The dataset was tallied.');
    }
}
