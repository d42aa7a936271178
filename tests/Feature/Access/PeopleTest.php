<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Models\SignInEntry;
use App\Models\User;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\Response;
use Tests\TestCase;

/** People come by a link that ends, have roles that begin and end, and can be locked out; what went on at the door is on record. */
final class PeopleTest extends TestCase
{
    private const WORDS = 'eleven herons under the sluice';

    private User $administrator;

    protected function setUp(): void
    {
        parent::setUp();
        Cache::flush();
        $this->administrator = $this->person('Greta Holm');
        $this->administrator->update(['is_administrator' => true]);
    }

    public function test_somebody_is_invited_comes_once_and_has_the_role_that_came_with_it(): void
    {
        $link = $this->invite('jonas.havelund@wherrymoor.example', 'test-manager');
        self::assertStringContainsString($link, $this->lastLetter());
        $token = basename($link);
        $this->app->make('auth')->forgetGuards();
        $this->api('GET', "/invitations/{$token}")
            ->assertOk()
            ->assertJson(['email' => 'jonas.havelund@wherrymoor.example', 'by' => 'Greta Holm']);
        $this->accept($token, 'too short')->assertUnprocessable();
        $this->accept($token, self::WORDS)->assertCreated()->assertJson(['name' => 'Jonas Havelund', 'isAdministrator' => false]);
        $this->accept($token, self::WORDS)->assertConflict()->assertJson(['code' => 'invitation-ended']);
        $jonas = User::query()->where('email', 'jonas.havelund@wherrymoor.example')->firstOrFail();
        self::assertSame('test-manager', $jonas->roleIn($this->migration)?->value);
        self::assertStringStartsWith('$argon2id$', $jonas->getAuthPassword());

        // Invited again before it was used: the link before is worth nothing; a week later neither is the new one.
        $first = basename($this->invite('ada.lund@wherrymoor.example', 'viewer'));
        $second = basename($this->invite('ada.lund@wherrymoor.example', 'viewer'));
        $this->api('GET', "/invitations/{$first}")->assertConflict();
        $this->travel(8)->days();
        $this->api('GET', "/invitations/{$second}")->assertConflict();
    }

    public function test_a_role_is_given_changed_and_ended_by_an_administrator_and_never_to_oneself(): void
    {
        $to = fn(User $person, ?string $role): TestResponse => $this->actingAs($this->administrator)
            ->api('PUT', "/migrations/{$this->migration->id}/people/{$person->id}", ['role' => $role]);
        $ida = $this->person('Ida Brandt');
        $to($ida, 'viewer')->assertNoContent();
        $to($ida, 'auditor')->assertNoContent();
        $this->actingAs($ida->refresh())->api('GET', "/migrations/{$this->migration->id}/board")->assertOk();
        $to($ida, null)->assertNoContent();
        $this->actingAs($ida->refresh())->api('GET', "/migrations/{$this->migration->id}/board")->assertNotFound();
        $to($this->administrator, 'auditor')->assertConflict()->assertJson(['code' => 'own-role']);
        // Administering shows nothing of the migration, and nobody else administers.
        $this->actingAs($this->administrator)->api('GET', "/migrations/{$this->migration->id}/board")->assertNotFound();
        $this->actingAs($this->analyst)->api('GET', '/people')->assertForbidden();
        $people = $this->actingAs($this->administrator)->api('GET', '/people');
        self::assertSame(
            [['Ida Brandt', null], ['Ida Brandt', 'auditor'], ['Ida Brandt', 'viewer']],
            array_map(static fn(array $entry): array => [$entry['person'], $entry['role']], $this->objects($people, 'history')),
        );
        $refused = 'UPDATE role_entries SET role = NULL';
        $this->expectExceptionMessage('permission denied');
        DB::connection()->statement($refused);
    }

    public function test_a_locked_person_is_out_at_once_and_what_they_are_asked_goes_to_another(): void
    {
        $tally = $this->tallied();
        $this->actingAs($this->analyst)->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'row', 'target' => '5', 'decision' => 'ask', 'reason' => 'whose?', 'askedId' => $this->owner->id, 'seenAct' => 0,
        ])->assertCreated();
        $asked = fn(User $person): int => count($this->objects($this->actingAs($person)->api('GET', '/for-me'), 'asked'));
        self::assertSame([1, 0], [$asked($this->owner), $asked($this->analyst)]);
        $this->signIn($this->owner)->assertOk();
        $session = SignInEntry::query()->where('user_id', $this->owner->id)->firstOrFail();
        $this->flushSession();
        $this->actingAs($this->administrator)
            ->api('PUT', "/people/{$this->owner->id}/lock", ['isLocked' => true, 'heir' => $this->analyst->id])
            ->assertNoContent();
        self::assertNotNull($session->refresh()->ended_at);
        self::assertSame(1, $asked($this->analyst));
        $this->app->make('auth')->forgetGuards();
        $this->signIn($this->owner)->assertUnprocessable();
        $this->actingAs($this->administrator)
            ->api('PUT', "/people/{$this->administrator->id}/lock", ['isLocked' => true, 'heir' => null])
            ->assertConflict();
    }

    public function test_a_session_is_ended_from_elsewhere_by_a_new_password_by_rest_and_by_the_day(): void
    {
        $this->signIn($this->analyst)->assertOk();
        $this->api('GET', '/migrations')->assertOk();
        $other = SignInEntry::query()->create([
            'user_id' => $this->analyst->id,
            'address' => '::1',
            'agent' => 'at home',
            'seen_at' => now(),
        ]);
        self::assertCount(2, $this->objects($this->api('GET', '/me/sessions'), 'items'));
        $this->api('PUT', '/me/password', ['current' => 'wrong', 'new' => self::WORDS])->assertUnprocessable();
        $this->api('PUT', '/me/password', ['current' => 'kept by the lock house', 'new' => self::WORDS])->assertNoContent();
        self::assertNotNull($other->refresh()->ended_at);
        foreach (
            [
                fn(): mixed => $this->api('DELETE', '/me/sessions/'.SignInEntry::goingOn($this->analyst->id)->firstOrFail()->id),
                fn(): int => SignInEntry::goingOn($this->analyst->id)->update(['seen_at' => now()->subMinutes(121)]),
                fn(): mixed => SignInEntry::goingOn($this->analyst->id)->update(['created_at' => now()->subHours(13)]),
            ]
            as $end
        ) {
            $this->api('GET', '/migrations')->assertOk();
            $end();
            $this->app->make('auth')->forgetGuards();
            $this->api('GET', '/migrations')->assertUnauthorized();
            $this->signIn($this->analyst, self::WORDS)->assertOk();
        }
    }

    public function test_the_auditor_sees_who_came_was_refused_took_away_and_nobody_else_does(): void
    {
        $tally = $this->tallied();
        $this->signIn($this->owner)->assertOk();
        $this->signIn($this->owner, 'not this one')->assertUnprocessable();
        $this->actingAs($this->owner)->api('POST', "/datasets/{$this->dataset->id}/runs")->assertForbidden();
        $this->get("/api/v1/tallies/{$tally->id}/findings/taken")->assertOk();
        $this->flushSession();
        $auditor = $this->person('Imre Halloway');
        $this->actingAs($this->administrator)
            ->api('PUT', "/migrations/{$this->migration->id}/people/{$auditor->id}", ['role' => 'auditor'])
            ->assertNoContent();
        // Of the door the people of the migration are shown; here they had their roles before anybody kept count.
        $this->api('PUT', "/migrations/{$this->migration->id}/people/{$this->owner->id}", ['role' => 'viewer'])->assertNoContent();
        $trail = $this->actingAs($auditor)->api('GET', "/migrations/{$this->migration->id}/trail")->assertOk();
        self::assertSame(
            [
                'gave-role Tove Lindqvist: data owner → viewer', 'gave-role Imre Halloway: nothing → auditor',
                "took-away GET /api/v1/tallies/{$tally->id}/findings/taken", "refused POST /api/v1/datasets/{$this->dataset->id}/runs",
                'failed wrong password', 'signed-in ',
            ],
            // What was done before stands behind: deliveries and a tally.
            array_slice(array_map(
                static fn(array $entry): string => (is_string($entry['act']) ? $entry['act'] : '').
                    ' '.
                    (is_string($entry['about']) ? $entry['about'] : ''),
                $this->objects($trail, 'items'),
            ), 0, 6),
        );
        self::assertCount(1, $this->objects($this->api('GET', "/migrations/{$this->migration->id}/trail?act=failed"), 'items'));
    }

    #[DataProvider('passwords')]
    public function test_a_password_is_long_and_not_guessed_early(string $password, bool $isGood): void
    {
        $this->signIn($this->analyst)->assertOk();
        $answer = $this->api('PUT', '/me/password', ['current' => 'kept by the lock house', 'new' => $password]);
        $isGood ? $answer->assertNoContent() : $answer->assertUnprocessable();
    }

    /** @return iterable<string, array{string, bool}> */
    public static function passwords(): iterable
    {
        yield 'words' => [self::WORDS, true];
        yield 'any letters' => ['grå måge på broen ⚓', true];
        yield 'as long as allowed' => [
            implode('', array_map(chr(...), array_map(static fn(int $n): int => 97 + (($n * 7) % 26), range(1, 128)))),
            true,
        ];
        yield 'short' => ['eleven herons', false];
        yield 'too long' => [str_repeat('heron sluice ', 10), false];
        yield 'two that leaked' => ['jenniferstarwars', false];
        yield 'one that leaked, dressed up' => ['2024!!starwars!!2024', false];
        yield 'three words that leaked, which is a phrase' => ['computer pepper harley', true];
        yield 'common' => ['password12345678', false];
        yield 'a run' => ['abcdefghijklmnop', false];
        yield 'repeated' => ['heron heron heron', false];
        yield 'of the person' => ['Ruth Osei Wherrymoor', false];
        yield 'of the migration and the product' => ['Wherrymoor cutover Nine Tally 1', false];
    }

    private function invite(string $email, string $role): string
    {
        $this->flushSession();
        $invited = $this->actingAs($this->administrator)->api('POST', '/people/invitations', [
            'name' => 'Jonas Havelund',
            'email' => $email,
            'migration' => $this->migration->id,
            'role' => $role,
            'isAdministrator' => false,
        ])->assertCreated();
        $link = $invited->json('link');
        self::assertIsString($link);

        return $link;
    }

    private function lastLetter(): string
    {
        $letters = glob(storage_path('mailbox').'/*.eml') ?: [];

        return quoted_printable_decode((string) file_get_contents($letters[count($letters) - 1]));
    }

    /** @return TestResponse<Response> */
    private function accept(string $token, string $password): TestResponse
    {
        return $this->api('POST', "/invitations/{$token}/acceptance", ['name' => 'Jonas Havelund', 'password' => $password]);
    }

    /** @return TestResponse<Response> */
    private function signIn(User $person, string $password = 'kept by the lock house'): TestResponse
    {
        return $this->api('POST', '/session', ['email' => $person->email, 'password' => $password]);
    }
}
