<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Models\Receipt;
use App\Models\Role;
use App\Policies\Act;
use Tests\TestCase;

/** Each role against each address: denied unless the policy allows it. */
final class WhoMayTest extends TestCase
{
    private const RULING = ['scope' => 'row', 'target' => '5', 'decision' => 'expected', 'reason' => 'as agreed', 'seenAct' => 0];

    private const PLAN = ['key' => [], 'columnPairs' => [], 'leftOut' => ['source' => [], 'target' => []]];

    private const KEY = ['key' => [['source' => 'basin', 'target' => 'basin']]];

    /** All on one tally: what one address changes leaves the next as free as it was, and to make a tally takes longest by far. */
    public function test_each_role_may_do_its_own_and_no_more(): void
    {
        $tally = $this->tallied();
        $receipt = $this->announce('source', 'more.csv', 10);
        self::assertSame(1, Receipt::query()->whereKey($receipt)->count());
        $stranger = $this->person('Nobody Here');
        $stranger->update(['is_administrator' => true]);
        $people = [[$stranger, null], [$this->owner, Role::DataOwner]];
        foreach ([Role::Viewer, Role::TestManager, Role::Auditor] as $role) {
            $people[] = [$this->person("Some {$role->value}"), $role];
            $this->migration->memberships()->create(['user_id' => $people[count($people) - 1][0]->id, 'role' => $role]);
        }
        foreach (self::addresses() as $what => [$method, $address, $body, $act]) {
            $path = str_replace(
                ['{tally}', '{receipt}', '{dataset}', '{migration}'],
                [(string) $tally->id, $receipt, (string) $this->dataset->id, (string) $this->migration->id],
                $address,
            );
            // What is done once cannot be done again, so the analyst comes last.
            foreach ([...$people, [$this->analyst, Role::Analyst]] as [$person, $role]) {
                $this->actingAs($person);
                $status = $this->json($method, "/api/v1{$path}", $body)->getStatusCode();
                $act->isFor($role)
                    ? self::assertNotContains($status, [401, 403, 404, 500], "{$what}: {$person->name}")
                    : self::assertSame($role === null ? 404 : 403, $status, "{$what}: {$person->name}");
            }
        }
    }

    /** @return iterable<string, array{string, string, array<string, mixed>, Act}> */
    private static function addresses(): iterable
    {
        yield 'see the board' => ['GET', '/migrations/{migration}/board', [], Act::View];
        yield 'see the sign-off' => ['GET', '/tallies/{tally}/sign-off', [], Act::View];
        yield 'sign' => ['POST', '/migrations/{migration}/signatures', ['items' => [], 'password' => 'x'], Act::Sign];
        yield 'waive' => ['POST', '/tallies/{tally}/waivers', ['limit' => 'rows-missing', 'reason' => 'so'], Act::Waive];
        yield 'say what is good enough' => ['PUT', '/migrations/{migration}/signing-terms', ['limits' => []], Act::SetLimits];
        yield 'set the limits of a dataset' => ['PUT', '/datasets/{dataset}/limits', ['limits' => []], Act::SetLimits];
        yield 'see a dataset' => ['GET', '/datasets/{dataset}', [], Act::View];
        yield 'see deliveries' => ['GET', '/datasets/{dataset}/deliveries', [], Act::View];
        yield 'see refused records' => ['GET', '/deliveries/1/refused', [], Act::View];
        yield 'see the plan' => ['GET', '/datasets/{dataset}/plan', [], Act::View];
        yield 'count a key' => ['POST', '/datasets/{dataset}/key-counts', self::KEY, Act::View];
        yield 'see a run' => ['GET', '/runs/1', [], Act::View];
        yield 'see tallies' => ['GET', '/datasets/{dataset}/tallies', [], Act::View];
        yield 'see a tally' => ['GET', '/tallies/{tally}', [], Act::View];
        yield 'see findings' => ['GET', '/tallies/{tally}/findings', [], Act::View];
        yield 'see a record' => ['GET', '/tallies/{tally}/records/1', [], Act::View];
        yield 'see the report' => ['GET', '/tallies/{tally}/report', [], Act::View];
        yield 'take the findings away' => ['GET', '/tallies/{tally}/findings/taken', [], Act::View];
        yield 'see what was ruled on a record' => ['GET', '/tallies/{tally}/records/1/rulings', [], Act::View];
        yield 'see a row as it was delivered' => ['GET', '/tallies/{tally}/records/1/delivered', [], Act::View];
        yield 'see defects' => ['GET', '/datasets/{dataset}/defects', [], Act::View];
        yield 'make corrections' => ['POST', '/datasets/{dataset}/corrections', ['acts' => [1]], Act::Rule];
        yield 'hold rehearsals together' => ['GET', '/migrations/{migration}/rehearsals', [], Act::View];
        yield 'name a tally' => ['PUT', '/tallies/{tally}/name', ['name' => 'Rehearsal 3', 'remark' => ''], Act::Work];
        yield 'have sensitive values shown' => ['POST', '/datasets/{dataset}/unmaskings', [], Act::Unmask];
        yield 'rule' => ['POST', '/tallies/{tally}/rulings', self::RULING, Act::Rule];
        yield 'add a dataset' => ['POST', '/migrations/{migration}/datasets', ['name' => 'Holders'], Act::Work];
        yield 'announce a file' => [
            'POST',
            '/datasets/{dataset}/receipts',
            ['side' => 'source', 'fileName' => 'x.csv', 'bytes' => 5],
            Act::Work,
        ];
        yield 'discard a file' => ['DELETE', '/receipts/{receipt}', [], Act::Work];
        yield 'change the plan' => ['PUT', '/datasets/{dataset}/plan', self::PLAN, Act::Work];
        yield 'start a run' => ['POST', '/datasets/{dataset}/runs', [], Act::Work];
        yield 'comment' => [
            'POST',
            '/tallies/{tally}/comments',
            ['kind' => 'row', 'target' => '1', 'text' => 'Why?', 'mentions' => []],
            Act::Comment,
        ];
        yield 'see the trail' => ['GET', '/migrations/{migration}/trail', [], Act::Audit];
        yield 'cancel a run' => ['POST', '/runs/1/cancellation', [], Act::Work];
    }
}
