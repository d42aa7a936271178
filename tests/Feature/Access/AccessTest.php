<?php

declare(strict_types=1);

namespace Tests\Feature\Access;

use App\Adapters\Storage\SessionFiles;
use App\Models\User;
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

    public function test_tries_are_limited_for_an_account_and_for_an_address(): void
    {
        for ($try = 0; $try < 5; $try++) {
            $this->signIn('ruth.osei@wherrymoor.example', 'wrong');
        }
        $this->signIn('ruth.osei@wherrymoor.example', 'kept by the lock house')->assertUnprocessable()->assertSee('Too many tries');
        for ($try = 0; $try < 30; $try++) {
            $this->signIn("nobody{$try}@wherrymoor.example", 'wrong');
        }
        $this->signIn('tove.lindqvist@wherrymoor.example', 'kept by the lock house')->assertUnprocessable()->assertSee('Too many tries');
    }

    public function test_every_address_but_the_session_asks_who_is_there(): void
    {
        $open = ['session', 'first-person', 'invitations/{token}', 'invitations/{token}/acceptance'];
        foreach (Route::getRoutes()->getRoutes() as $route) {
            if (str_starts_with($route->uri(), 'api/') && ! in_array(substr($route->uri(), strlen('api/v1/')), $open, true)) {
                self::assertContains('auth', $route->gatherMiddleware(), $route->uri());
            }
        }
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
