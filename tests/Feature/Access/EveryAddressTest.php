<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Http\Middleware\May;
use App\Models\Role;
use App\Models\User;
use App\Policies\Act;
use Illuminate\Support\Facades\Auth;
use Tests\Support\Addresses;
use Tests\TestCase;

/**
 * Every address of the route list, by everybody: nobody, a session without the token of its page, strangers, each role, and a token of
 * its scope and of another. What is done by those who may is left to other tests, but for what only asks.
 */
final class EveryAddressTest extends TestCase
{
    use Addresses;

    private const OPEN = ['session', 'first-person', 'invitations/{token}', 'invitations/{token}/acceptance'];

    public function test_each_address_is_for_those_whom_its_act_is_for(): void
    {
        $tally = $this->tallied();
        $this->announce('source', 'more.csv', 10);
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'row',
            'target' => '5',
            'decision' => 'expected',
            'reason' => 'so',
            'seenAct' => 0,
        ]);
        [$asked, $turn] = [0, 0];
        $stranger = $this->person('Nobody Here');
        $administrator = $this->person('Greta Holm');
        $administrator->update(['is_administrator' => true]);
        $people = [[$stranger, null], [$administrator, null], [$this->analyst, Role::Analyst], [$this->owner, Role::DataOwner]];
        $this->actingAs($administrator)->api('POST', '/people/invitations', [
            'name' => 'Ada', 'email' => 'ada@wherrymoor.example', 'migration' => null, 'role' => null, 'isAdministrator' => false,
        ])->assertCreated();
        foreach ([Role::Viewer, Role::TestManager, Role::Auditor] as $role) {
            $people[] = [$this->person("Some {$role->value}"), $role];
            $this->migration->memberships()->create(['user_id' => $people[count($people) - 1][0]->id, 'role' => $role]);
        }
        $tokens = [];
        foreach (Act::ofTokens() as $scope) {
            foreach ([[$this->analyst, Role::Analyst], $people[count($people) - 1]] as [$person, $role]) {
                $tokens[] = [$person->createToken('nightly', [$scope->value], now()->addDay())->plainTextToken, $scope, $role];
            }
        }

        foreach ($this->addresses() as [$method, $uri, $route]) {
            if (in_array(substr($uri, 7), self::OPEN, true) && $uri.$method !== 'api/v1/sessionDELETE') {
                continue;
            }
            $path = '/'.$this->filled($uri, $tally);
            $act = May::actOf($route);
            $isOfMigration =
                preg_match('/\{(migration|dataset|tally|delivery|receipt|run|ruling|filter|order|report|eyeCheck)\}/', $uri) === 1;
            self::assertSame(401, $this->asked($method, $path, null), "{$method} {$path} by nobody");
            if ($method !== 'GET') {
                $this->app['env'] = 'local';
                self::assertSame(419, $this->asked($method, $path, $this->analyst), "{$method} {$path} from another page");
                $this->app['env'] = 'testing';
            }
            $turn++;
            foreach ($people as $place => [$person, $role]) {
                $expected = match (true) {
                    $act === Act::KeepAccount => 200,
                    $act === Act::Administer => $person->is_administrator ? 200 : ($isOfMigration && $role === null ? 404 : 403),
                    ! $isOfMigration => 200,
                    $role === null => 404,
                    default => $act->isFor($role) ? 200 : 403,
                };
                $isTried = $expected === 200
                    ? in_array($role, [Role::Analyst, Role::Auditor], true)
                    : $role === null || ($turn + $place) % 3 === 0;
                if ($isTried) {
                    // Those who may are asked for by two of them, and of those who may not one after the other: what differs among them is
                    // told by their acts (WhoMayTest).
                    $this->holds($expected, $method, $path, fn(): int => $this->asked($method, $path, $person), $person->name);
                }
                $asked++;
            }
            // Of the tokens that are not for it each is refused by the same line, so one after the other is tried.
            $ofAct = array_filter($tokens, static fn(array $token): bool => $token[1] === $act);
            $others = array_values(array_filter($tokens, static fn(array $token): bool => $token[1] !== $act));
            foreach ([...$ofAct, $others[$turn % count($others)]] as [$token, $scope, $role]) {
                $expected = $act === $scope && (! $isOfMigration || $act->isFor($role)) ? 200 : 403;
                $this->holds(
                    $expected,
                    $method,
                    $path,
                    fn(): int => $this->asked($method, $path, null, $token),
                    "a token for {$scope->value}",
                );
                $asked++;
            }
        }
        self::assertGreaterThan(1000, $asked);
    }

    public function test_a_token_ends_on_its_day_or_when_it_is_ended_or_its_person_locked(): void
    {
        $this->actingAs($this->analyst);
        $made = function (string $lastDay): string {
            $token = $this->api('POST', '/me/tokens', [
                'name' => 'nightly', 'password' => 'kept by the lock house', 'scopes' => ['view'], 'lastDay' => $lastDay,
            ])->assertCreated()->json('token');

            return is_string($token) ? $token : self::fail('A token is told once.');
        };
        $this->api('POST', '/me/tokens', [
            'name' => 'x', 'password' => 'wrong', 'scopes' => ['view'], 'lastDay' => now()->toDateString(),
        ])->assertUnprocessable();
        $token = $made(now()->addDays(3)->toDateString());
        $short = $made(now()->toDateString());
        $path = "/api/v1/migrations/{$this->migration->id}/board";

        self::assertSame([200, 200], [$this->asked('GET', $path, null, $token), $this->asked('GET', $path, null, $short)]);
        self::assertSame([], $this->withToken($token)->getJson($path)->headers->getCookies(), 'Each call would leave a session.');
        $this->travel(1)->days();
        self::assertSame([200, 401], [$this->asked('GET', $path, null, $token), $this->asked('GET', $path, null, $short)]);
        $this->analyst->update(['locked_at' => now()]);
        self::assertSame(401, $this->asked('GET', $path, null, $token));
        $this->analyst->update(['locked_at' => null]);
        Auth::forgetGuards();
        $this->withoutToken()->actingAs($this->analyst->refresh());
        $this->api('DELETE', '/me/tokens/'.$this->number($this->api('GET', '/me/tokens'), 'items.1.id'))->assertNoContent();
        self::assertSame(401, $this->asked('GET', $path, null, $token));
        self::assertSame(401, $this->asked('GET', $path, null, '7|nobody-made-this'));
    }

    /** @param \Closure(): int $ask */
    private function holds(int $expected, string $method, string $path, \Closure $ask, string $who): void
    {
        if ($expected !== 200) {
            // What is not there is not found, before anybody is refused it.
            self::assertContains($ask(), [$expected, 404], "{$method} {$path} by {$who}");
        } elseif ($method === 'GET') {
            self::assertNotContains($ask(), [401, 403, 419, 500], "{$method} {$path} by {$who}");
        }
    }

    private function asked(string $method, string $path, ?User $person, ?string $token = null): int
    {
        Auth::forgetGuards();
        $this->flushSession();
        $person === null ? Auth::guard('web')->logout() : $this->actingAs(User::query()->findOrFail($person->id));
        $token === null ? $this->withoutToken() : $this->withToken($token);

        return $this->json($method, $path)->getStatusCode();
    }
}
