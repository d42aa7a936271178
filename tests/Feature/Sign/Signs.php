<?php

declare(strict_types=1);

namespace Tests\Feature\Sign;

use App\Models\Role;
use App\Models\Tally;
use App\Models\User;
use Illuminate\Testing\TestResponse;
use Symfony\Component\HttpFoundation\Response;

/** Three people, two small sides, and what they do about a tally of them. */
trait Signs
{
    private const SOURCE = "basin,berth,fee\nKB,1,10\nKB,2,20\nKB,3,30\n";

    private const TARGET = "basin,berth,fee\nKB,1,10\nKB,2,25\n";

    private User $manager;

    protected function setUp(): void
    {
        parent::setUp();
        $this->manager = $this->person('Ines Varga');
        $this->migration->memberships()->create(['user_id' => $this->manager->id, 'role' => Role::TestManager]);
    }

    /** @return TestResponse<Response> */
    private function sign(Tally $tally, User $person, ?string $digest = null, string $password = 'kept by the lock house'): TestResponse
    {
        $this->actingAs($person);
        $digest ??= $this->api('GET', "/tallies/{$tally->id}/sign-off")->json('mine.digest') ?? str_repeat('0', 64);

        return $this->api('POST', "/migrations/{$this->migration->id}/signatures", [
            'items' => [['tally' => $tally->id, 'digest' => $digest]],
            'password' => $password,
        ]);
    }

    /** @return TestResponse<Response> */
    private function rule(Tally $tally, string $class): TestResponse
    {
        return $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => $class === 'changed' ? 'pattern' : 'class',
            'target' => $class === 'changed' ? '1' : $class,
            'decision' => 'expected',
            'reason' => 'as agreed',
            'seenAct' => 1_000,
        ]);
    }

    /** @return list<array<int, mixed>> figure, state, value, distance and whether it is inherited */
    private function limits(Tally $tally): array
    {
        return array_map(
            static fn(array $one): array => [$one['figure'], $one['state'], $one['value'], $one['distance'], $one['isInherited']],
            $this->objects($this->api('GET', "/tallies/{$tally->id}/sign-off")->assertOk(), 'limits'),
        );
    }

    /**
     * @param  list<array<string, string>>  $limits
     * @param  array<string, mixed>  $duties
     */
    private function terms(array $limits, array $duties = []): void
    {
        $this->api('PUT', "/migrations/{$this->migration->id}/signing-terms", [
            'limits' => $limits, ...$duties + ['needsCheck' => true, 'maySignTwice' => false, 'mayAcceptOwn' => false],
        ])->assertOk();
    }

    /** @param list<array<string, string>> $limits */
    private function setLimits(array $limits): void
    {
        $path = "/datasets/{$this->dataset->id}/limits";
        $this->api('PUT', $path, ['limits' => $limits, 'draft' => $this->number($this->api('GET', $path), 'draft')])->assertOk();
    }

    /** @param TestResponse<Response> $response */
    private function text(TestResponse $response, string $path): string
    {
        $part = $response->json($path);
        self::assertIsString($part);

        return $part;
    }

    private function newest(): Tally
    {
        return $this->dataset->latestTally() ?? throw new \LogicException('There is a tally.');
    }

    protected function tallied(
        string $old = self::SOURCE,
        string $new = self::TARGET,
        ?array $pairs = [['source' => 'fee', 'target' => 'fee']],
    ): Tally {
        return parent::tallied($old, $new, $pairs);
    }
}
