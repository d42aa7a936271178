<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Models\Receipt;
use App\Models\Role;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** Each role against each address: denied unless the policy allows it. */
final class WhoMayTest extends TestCase
{
    private const RULING = ['scope' => 'row', 'target' => '5', 'decision' => 'expected', 'reason' => 'as agreed', 'seenAct' => 0];

    private const PLAN = ['key' => [], 'columnPairs' => [], 'leftOut' => ['source' => [], 'target' => []]];

    private const KEY = ['key' => [['source' => 'basin', 'target' => 'basin']]];

    /** @param array<string, mixed> $body */
    #[DataProvider('addresses')]
    public function test_each_role_may_do_its_own_and_no_more(
        string $method,
        string $path,
        array $body,
        bool $analyst,
        bool $owner,
        bool $auditor,
    ): void {
        $tally = $this->tallied();
        $receipt = $this->announce('source', 'more.csv', 10);
        self::assertSame(1, Receipt::query()->whereKey($receipt)->count());
        $path = str_replace(
            ['{tally}', '{receipt}', '{dataset}', '{migration}'],
            [(string) $tally->id, $receipt, (string) $this->dataset->id, (string) $this->migration->id],
            $path,
        );
        [$stranger, $halloway] = [$this->person('Nobody Here'), $this->person('Imre Halloway')];
        $this->migration->memberships()->create(['user_id' => $halloway->id, 'role' => Role::Auditor]);

        foreach ([[$stranger, false], [$this->owner, $owner], [$halloway, $auditor], [$this->analyst, $analyst]] as [$person, $may]) {
            $this->actingAs($person);
            $status = $this->json($method, "/api/v1{$path}", $body)->getStatusCode();
            $may ? self::assertNotContains($status, [401, 403, 404, 500], $person->name) : self::assertSame(403, $status, $person->name);
        }
    }

    /** @return iterable<string, array{string, string, array<string, mixed>, bool, bool, bool}> */
    public static function addresses(): iterable
    {
        yield 'see the board' => ['GET', '/migrations/{migration}/board', [], true, true, true];
        yield 'see a dataset' => ['GET', '/datasets/{dataset}', [], true, true, true];
        yield 'see deliveries' => ['GET', '/datasets/{dataset}/deliveries', [], true, true, true];
        yield 'see refused records' => ['GET', '/deliveries/1/refused', [], true, true, true];
        yield 'see the plan' => ['GET', '/datasets/{dataset}/plan', [], true, true, true];
        yield 'count a key' => ['POST', '/datasets/{dataset}/key-counts', self::KEY, true, true, true];
        yield 'see a run' => ['GET', '/runs/1', [], true, true, true];
        yield 'see tallies' => ['GET', '/datasets/{dataset}/tallies', [], true, true, true];
        yield 'see a tally' => ['GET', '/tallies/{tally}', [], true, true, true];
        yield 'see findings' => ['GET', '/tallies/{tally}/findings', [], true, true, true];
        yield 'see a record' => ['GET', '/tallies/{tally}/records/1', [], true, true, true];
        yield 'see the report' => ['GET', '/tallies/{tally}/report', [], true, true, true];
        yield 'take the findings away' => ['GET', '/tallies/{tally}/findings/taken', [], true, true, true];
        yield 'see what was ruled on a record' => ['GET', '/tallies/{tally}/records/1/rulings', [], true, true, true];
        yield 'see a row as it was delivered' => ['GET', '/tallies/{tally}/records/1/delivered', [], true, true, true];
        yield 'see defects' => ['GET', '/datasets/{dataset}/defects', [], true, true, true];
        yield 'make corrections' => ['POST', '/datasets/{dataset}/corrections', ['acts' => [1]], true, true, false];
        yield 'hold rehearsals together' => ['GET', '/migrations/{migration}/rehearsals', [], true, true, true];
        yield 'name a tally' => ['PUT', '/tallies/{tally}/name', ['name' => 'Rehearsal 3', 'remark' => ''], true, false, false];
        yield 'have sensitive values shown' => ['POST', '/datasets/{dataset}/unmaskings', [], true, true, false];
        yield 'rule' => ['POST', '/tallies/{tally}/rulings', self::RULING, true, true, false];
        yield 'add a dataset' => ['POST', '/migrations/{migration}/datasets', ['name' => 'Holders'], true, false, false];
        yield 'announce a file' => [
            'POST',
            '/datasets/{dataset}/receipts',
            ['side' => 'source', 'fileName' => 'x.csv', 'bytes' => 5],
            true,
            false,
            false,
        ];
        yield 'discard a file' => ['DELETE', '/receipts/{receipt}', [], true, false, false];
        yield 'change the plan' => ['PUT', '/datasets/{dataset}/plan', self::PLAN, true, false, false];
        yield 'start a run' => ['POST', '/datasets/{dataset}/runs', [], true, false, false];
        yield 'cancel a run' => ['POST', '/runs/1/cancellation', [], true, false, false];
    }
}
