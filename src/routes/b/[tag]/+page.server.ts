import { redirect } from '@sveltejs/kit';

export function load({ params }) {
  redirect(303, `/b/${params.tag}/pair`);
}
