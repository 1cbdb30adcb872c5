import { redirect } from '@sveltejs/kit';

export function load({ params }) {
  redirect(303, `/c/${params.crate}/crate/drive`);
}
