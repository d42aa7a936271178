<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Adapters\Storage\SessionFiles;
use App\Models\User;
use Illuminate\Http\Middleware\TrustProxies;
use Illuminate\Session\Store;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\Facades\Session;
use Tests\TestCase;

final class AccessTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        Cache::flush();
    }

    public function test_signs_in_with_a_session_that_is_renewed_and_out_again(): void
    {
        $before = $this->api('GET', '/session')
            ->assertOk()
            ->assertJson(['person' => null, 'needsFirstPerson' => false]);
        $signedIn = $this->signIn('ruth.osei@wherrymoor.example', 'kept by the lock house')
            ->assertOk()
            ->assertJson(['name' => 'Ruth Osei']);
        $cookie = $signedIn->getCookie(config()->string('session.cookie'), false);

        self::assertNotNull($cookie);
        self::assertTrue($cookie->isHttpOnly());
        self::assertSame('strict', $cookie->getSameSite());
        self::assertNotSame($before->getCookie(config()->string('session.cookie'), false)?->getValue(), $cookie->getValue());
        $this->api('DELETE', '/session')->assertNoContent();
        $this->api('GET', '/migrations')->assertUnauthorized()->assertJson(['code' => 'not-signed-in']);
    }

    public function test_a_session_that_was_ended_is_not_brought_back_by_a_request_that_was_on_its_way(): void
    {
        $sessions = fn(): SessionFiles => new SessionFiles(app('files'), storage_path('framework/sessions'), 60);
        $before = $sessions();
        $before->write('berth-keeper', 'signed in');
        $onItsWay = $sessions();
        $onItsWay->read('berth-keeper');
        $before->destroy('berth-keeper');
        $onItsWay->write('berth-keeper', 'signed in, and looked at the board');

        self::assertSame('', $sessions()->read('berth-keeper'));
        $this->signIn('ruth.osei@wherrymoor.example', 'kept by the lock house')->assertOk();
        self::assertInstanceOf(SessionFiles::class, $this->handlerOf(Session::driver()), 'It is what serves.');
    }

    private function handlerOf(mixed $store): mixed
    {
        return $store instanceof Store ? $store->getHandler() : null;
    }

    public function test_an_unknown_account_and_a_wrong_password_get_the_same_answer(): void
    {
        $wrong = $this->signIn('ruth.osei@wherrymoor.example', 'wrong')->assertUnprocessable();
        $unknown = $this->signIn('nobody@wherrymoor.example', 'wrong')->assertUnprocessable();

        self::assertSame($wrong->getContent(), $unknown->getContent());
    }

    public function test_who_guesses_waits_longer_each_time_and_the_owner_signs_in_from_where_she_did_before(): void
    {
        $this->freezeTime();
        $device = $this->signIn('ruth.osei@wherrymoor.example', 'kept by the lock house')
            ->assertOk()
            ->getCookie(config()->string('session.cookie').'_device', false) ?? self::fail('Nothing was given to the browser.');
        self::assertSame([true, 'strict'], [$device->isHttpOnly(), $device->getSameSite()]);
        $waits = [];
        for ($try = 0; $try < 8; $try++) {
            $answer = $this->signIn('Ruth.Osei@wherrymoor.example', 'wrong');
            if ($answer->status() === 429) {
                $waits[] = (int) $answer->headers->get('Retry-After');
                $answer->assertJson(['code' => 'too-many-tries'])->assertSee("Wait {$waits[count($waits) - 1]} seconds");
                $this->travel($waits[count($waits) - 1])->seconds();
            }
        }
        self::assertSame([4, 8], $waits);
        $this->signIn('ruth.osei@wherrymoor.example', 'wrong');
        $this->signIn('ruth.osei@wherrymoor.example', 'kept by the lock house')->assertTooManyRequests();
        $this->withCredentials()->withUnencryptedCookie(config()->string('session.cookie').'_device', (string) $device->getValue());
        $this->signIn('ruth.osei@wherrymoor.example', 'kept by the lock house')->assertOk();
    }

    public function test_who_guesses_at_many_accounts_waits_too_and_others_elsewhere_do_not(): void
    {
        $this->freezeTime();
        for ($try = 0; $try < 20; $try++) {
            $this->signIn("nobody{$try}@wherrymoor.example", 'wrong')->assertUnprocessable();
        }
        $this->signIn('tove.lindqvist@wherrymoor.example', 'kept by the lock house')->assertTooManyRequests();
        $this->withServerVariables(['REMOTE_ADDR' => '192.0.2.7']);
        $this->signIn('tove.lindqvist@wherrymoor.example', 'kept by the lock house')->assertOk();
    }

    public function test_only_a_server_that_is_named_is_believed_and_behind_tls_cookies_are_secure(): void
    {
        $forwarded = ['X-Forwarded-Proto' => 'https', 'X-Forwarded-For' => '192.0.2.9'];
        $isSecure = fn(): bool =>
            $this->withHeaders($forwarded)->get('/api/v1/session')->getCookie(config()->string('session.cookie'), false)?->isSecure() ??
            self::fail('There is no session.');
        self::assertFalse($isSecure());

        TrustProxies::at(['127.0.0.1']);
        self::assertTrue($isSecure());
        $this->get('/')->assertHeader('Strict-Transport-Security');
        TrustProxies::at([]);
    }

    public function test_nothing_that_the_api_answers_is_kept_on_the_way_and_no_other_page_may_ask(): void
    {
        $answer = $this->get('/api/v1/session', ['Origin' => 'https://elsewhere.example']);

        self::assertSame('no-store, private', $answer->headers->get('Cache-Control'));
        $answer->assertHeaderMissing('Access-Control-Allow-Origin');
        self::assertSame([], array_filter(
            array_map(static fn(\Illuminate\Routing\Route $route): string => $route->uri(), Route::getRoutes()->getRoutes()),
            static fn(string $uri): bool => str_starts_with($uri, 'storage'),
        ));
    }

    public function test_the_page_runs_its_own_scripts_and_nothing_else(): void
    {
        $policy = (string) $this->get('/')->assertOk()->headers->get('Content-Security-Policy');

        self::assertStringContainsString("default-src 'none'; script-src 'self'; style-src 'self'", $policy);
        self::assertStringNotContainsString('unsafe', $policy);
    }

    public function test_the_first_person_comes_with_a_one_time_code(): void
    {
        DB::connection('owner')->statement('TRUNCATE users CASCADE');
        Artisan::call('nine-tally:sign-ins');
        preg_match('/^  ([0-9a-f]{32})$/m', Artisan::output(), $found);
        $person = [
            'code' => $found[1] ?? self::fail('No code was printed.'),
            'name' => 'Ruth Osei',
            'email' => 'ruth@wherrymoor.example',
            'password' => 'kept by the lock house',
        ];
        self::assertStringNotContainsString($person['code'], DB::table('first_person_codes')->get()->toJson());

        $this->api('POST', '/first-person', [...$person, 'code' => 'wrong'])->assertUnprocessable();
        $this->api('POST', '/first-person', [...$person, 'password' => 'short'])->assertUnprocessable();
        $this->api('POST', '/first-person', $person)->assertCreated()->assertJson(['isAdministrator' => true]);
        $this->api('POST', '/first-person', $person)->assertUnprocessable();
        self::assertSame(1, User::query()->count());
    }

    public function test_a_code_is_used_up_after_five_tries_and_after_an_hour(): void
    {
        DB::connection('owner')->statement('TRUNCATE users CASCADE');
        $person = ['code' => 'right', 'name' => 'Ruth Osei', 'email' => 'ruth@wherrymoor.example', 'password' => 'kept by the lock house'];
        $code = ['code_hash' => hash('sha256', 'right'), 'tries' => 0];
        DB::table('first_person_codes')->insert([...$code, 'expires_at' => now()->subSecond()]);
        $this->api('POST', '/first-person', $person)->assertUnprocessable();

        DB::table('first_person_codes')->insert([...$code, 'expires_at' => now()->addHour()]);
        for ($try = 0; $try < 5; $try++) {
            $this->api('POST', '/first-person', [...$person, 'code' => 'wrong'])->assertUnprocessable();
        }
        $this->api('POST', '/first-person', $person)->assertUnprocessable();
        self::assertSame(0, User::query()->count());
    }

    public function test_only_an_administrator_adds_a_migration_and_only_an_analyst_a_dataset(): void
    {
        $migration = ['name' => 'Second rehearsal', 'sourceLabel' => 'Old', 'targetLabel' => 'New'];
        $this->actingAs($this->analyst);
        $this->api('POST', '/migrations', $migration)->assertForbidden();
        $this->api('POST', "/migrations/{$this->migration->id}/datasets", ['name' => 'Vessels'])->assertCreated();
        $this->api('POST', "/migrations/{$this->migration->id}/datasets", ['name' => 'Vessels'])
            ->assertUnprocessable()
            ->assertSee('has a dataset of this name already');
        $this->actingAs($this->owner);
        $this->api('POST', "/migrations/{$this->migration->id}/datasets", ['name' => 'Holders'])->assertForbidden();
        $this->analyst->update(['is_administrator' => true]);
        $this->actingAs($this->analyst);
        $this->api('POST', '/migrations', $migration)->assertCreated();
        $this->api('GET', '/migrations')->assertOk()->assertJsonCount(2, 'items')->assertJson(['mayAdd' => true]);
    }

    public function test_a_failure_that_nobody_expected_shows_no_trace(): void
    {
        $this->actingAs($this->analyst);
        DB::listen(static function (): never {
            throw new \RuntimeException('secret detail');
        });

        $this->api('GET', '/migrations')
            ->assertInternalServerError()
            ->assertJson(['code' => 'unexpected'])
            ->assertDontSee('secret detail')
            ->assertDontSee('.php');
    }

    /** @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function signIn(string $email, string $password): \Illuminate\Testing\TestResponse
    {
        return $this->api('POST', '/session', ['email' => $email, 'password' => $password]);
    }
}
